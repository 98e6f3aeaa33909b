// What has been painted, as a frame of the encoder's own: from the kernels' memory by way of one that stays.
import { AvFrameVideoSampleResource } from '@mediabunny/server'
import { VideoSample } from 'mediabunny'
import {
  AV_PIX_FMT_YUV420P,
  AVCOL_PRI_BT709,
  AVCOL_RANGE_MPEG,
  AVCOL_SPC_BT709,
  AVCOL_TRC_BT709,
  FFmpegError,
  Frame,
  Rational,
} from 'node-av'
import type { setSampleMaker } from '../media/planes-sample'
import { frameStage } from './frame-stage'

/** Copies rows that lie close together to where rows have room between them. */
function copyRows(from: Uint8Array, width: number, to: Uint8Array, stride: number): void {
  if (stride === width) to.set(from)
  else for (let y = 0; y * width < from.length; y++) to.set(from.subarray(y * width, (y + 1) * width), y * stride)
}

export const frameSample: Parameters<typeof setSampleMaker>[0] = (planes, { width, height }, when) => {
  const frame = new Frame()
  frame.alloc()
  frame.width = width
  frame.height = height
  frame.format = AV_PIX_FMT_YUV420P
  frame.sampleAspectRatio = new Rational(1, 1)
  frame.colorPrimaries = AVCOL_PRI_BT709
  frame.colorTrc = AVCOL_TRC_BT709
  frame.colorSpace = AVCOL_SPC_BT709
  frame.colorRange = AVCOL_RANGE_MPEG
  FFmpegError.throwIfError(frame.allocBuffer(), 'allocBuffer')
  const [luma, half] = [width * height, (width >> 1) * (height >> 1)]
  const parts = [
    [0, luma, width],
    [luma, luma + half, width >> 1],
    [luma + half, luma + 2 * half, width >> 1],
  ] as const
  const stage = frameStage(frame)
  for (const [i, [from, to, row]] of parts.entries()) {
    copyRows(planes.subarray(from, to), row, stage.planes[i]!.data, stage.planes[i]!.stride)
  }
  FFmpegError.throwIfError(frame.copy(stage.frame), 'copy')
  return new VideoSample(new AvFrameVideoSampleResource(frame), when)
}
