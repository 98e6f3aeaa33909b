// Which matrix and range a film's codes are meant in, read and written.
import type { VideoSample } from 'mediabunny'
import type { Matrix } from '../core/render'

/** What we write: ITU-R BT.709, limited range. */
export const WRITTEN_COLOUR = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false } as const

/**
 * Puts the colours into a film's head when its first packet comes; not every encoder says them itself. For
 * `onEncodedPacket` of a video source.
 */
export const tellColour =
  (colour: VideoColorSpaceInit = WRITTEN_COLOUR) =>
  (_: unknown, meta: EncodedVideoChunkMetadata | undefined): void => {
    if (meta?.decoderConfig) meta.decoderConfig.colorSpace = colour
  }

export interface ColourCoding {
  matrix: Matrix
  fullRange: boolean
}

/** What the file's head says counts first, then the decoder, then what cameras and coders mean where nothing is said. */
export function colourCoding(file: VideoColorSpaceInit, sample: VideoSample): ColourCoding {
  const fullRange = (file.matrix ? file.fullRange : null) ?? sample.colorSpace.fullRange ?? file.fullRange ?? false
  const said: string | null | undefined = file.matrix ?? sample.colorSpace.matrix
  if (said === 'bt709') return { matrix: 'bt709', fullRange }
  if (said === 'smpte170m' || said === 'bt470bg') return { matrix: 'bt601', fullRange }
  if (said === 'bt2020-ncl') return { matrix: 'bt2020', fullRange }
  return { matrix: sample.codedHeight < 720 ? 'bt601' : 'bt709', fullRange }
}
