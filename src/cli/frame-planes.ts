// A decoder's own frame, read.
import type { AvFrameVideoSampleResource } from '@mediabunny/server'
import type { VideoSample } from 'mediabunny'
import { FFmpegError } from 'node-av'
import type { setPlaneReader } from '../media/decode'
import { frameStage } from './frame-stage'

/** The planes of the frame behind a sample, until the next one is read; none where a sample is no such frame. */
export const framePlanes: NonNullable<Parameters<typeof setPlaneReader>[0]> = (sample: VideoSample) => {
  // The library has no public way to it.
  const { _data } = sample as unknown as { _data: Partial<AvFrameVideoSampleResource> | null }
  if (!_data?.frame) return []
  const { frame, planes } = frameStage(_data.frame)
  FFmpegError.throwIfError(frame.copy(_data.frame), 'copy')
  return planes.map(plane => ({ ...plane, offset: 0 }))
}
