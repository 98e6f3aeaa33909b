// Which matrix, range and chroma places a film's codes are meant in, read and written.
import { EncodedPacketSink, type InputVideoTrack, type VideoSample } from 'mediabunny'
import type { ChromaPlace, Matrix } from '../core/render'
import { type H264Colours, h264Colours } from './h264-head'
import { type Vp9Colours, vp9Colours } from './vp9-head'

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

/** What a film's head says of its codes. */
export interface StatedCoding {
  /** null: it does not say. */
  matrix: Matrix | null
  fullRange: boolean | null
  chroma: ChromaPlace
  /** Whether all that the file says has been read: then the decoder has nothing to add. */
  isSure: boolean
}

export interface ColourCoding {
  matrix: Matrix
  fullRange: boolean
  chroma: ChromaPlace
}

/** Where chroma lies unless a file says otherwise: as MPEG-2 and all its followers have it. */
const USUAL: ChromaPlace = { across: 'even', down: 'between' }

/** By chroma_sample_loc_type of H.264 and H.265. */
const BY_NUMBER: readonly ChromaPlace[] = [
  USUAL,
  { across: 'between', down: 'between' },
  { across: 'even', down: 'even' },
  { across: 'between', down: 'even' },
  { across: 'even', down: 'odd' },
  { across: 'between', down: 'odd' },
]

/**
 * AV1 and VP9 tell it in their codec strings: of `av01.P.LLT.DD.M.CCC…` the last of CCC is 2 where chroma lies on the luma
 * samples (AV1 Codec ISO Media File Format Binding), of `vp09.PP.LL.DD.CC…` CC is 01 there (VP Codec ISO Binding).
 */
function placeInName(codec: string): ChromaPlace {
  const parts = codec.split('.')
  const collocated = (parts[0] === 'av01' && parts[5] === '112') || (parts[0] === 'vp09' && parts[4] === '01')
  return collocated ? BY_NUMBER[2]! : USUAL
}

const NAMED: Readonly<Record<string, Matrix>> = {
  bt709: 'bt709',
  smpte170m: 'bt601',
  bt470bg: 'bt601',
  'bt2020-ncl': 'bt2020',
}

/** Numbers of H.273, table 4. */
const NUMBERED: Readonly<Record<number, Matrix>> = {
  1: 'bt709',
  5: 'bt601',
  6: 'bt601',
  7: 'smpte240m',
  9: 'bt2020',
}

const recordOf = (description: AllowSharedBufferSource | undefined): Uint8Array => {
  if (!description) return new Uint8Array()
  return ArrayBuffer.isView(description)
    ? new Uint8Array(description.buffer, description.byteOffset, description.byteLength)
    : new Uint8Array(description)
}

/** Codings whose own head is read here: where it says nothing the decoder can only guess, and each guesses otherwise. */
const READ_HERE = ['avc', 'vp8', 'vp9']

async function ownHead(video: InputVideoTrack): Promise<Partial<H264Colours> & Partial<Vp9Colours>> {
  const codec = await video.getCodec()
  if (codec === 'avc') return h264Colours(recordOf((await video.getDecoderConfig())?.description))
  if (codec !== 'vp9') return {}
  const first = await new EncodedPacketSink(video).getFirstPacket()
  return first ? vp9Colours(first.data) : {}
}

/** What a film's head says: the container first, then the coding's own head. */
export async function statedCoding(video: InputVideoTrack): Promise<StatedCoding> {
  const colour = await video.getColorSpace()
  const head = await ownHead(video)
  const inName = placeInName((await video.getCodecParameterString()) ?? '')
  return {
    matrix: NAMED[colour.matrix ?? ''] ?? NUMBERED[head.matrix ?? -1] ?? null,
    fullRange: colour.fullRange ?? head.fullRange ?? null,
    chroma: head.chroma != null ? BY_NUMBER[head.chroma]! : inName,
    isSure: READ_HERE.includes((await video.getCodec()) ?? ''),
  }
}

/** What the file's head says counts first, then the decoder, then what cameras and coders mean where nothing is said. */
export function colourCoding(stated: StatedCoding, sample: VideoSample): ColourCoding {
  const decoded = stated.isSure ? { matrix: null, fullRange: null } : sample.colorSpace
  const fullRange = (stated.matrix ? stated.fullRange : null) ?? decoded.fullRange ?? stated.fullRange ?? false
  const matrix = stated.matrix ?? NAMED[decoded.matrix ?? ''] ?? (sample.codedHeight < 720 ? 'bt601' : 'bt709')
  return { matrix, fullRange, chroma: stated.chroma }
}
