// What the head of an H.264 film says of its colours that the container may not: ITU-T H.264, 7.3.2.1 and annex E.

/** Numbers as ITU-T H.273 counts them; null where nothing is said. */
export interface H264Colours {
  matrix: number | null
  fullRange: boolean | null
  /** chroma_sample_loc_type, H.264 figure E-1: 0 left, 1 centre, 2 top left, 3 top, 4 bottom left, 5 bottom. */
  chroma: number | null
}

const NOTHING: H264Colours = { matrix: null, fullRange: null, chroma: null }
const UNSPECIFIED = 2
/** Profiles whose heads tell chroma format and depth. */
const HIGH = [100, 110, 122, 244, 44, 83, 86, 118, 128]
const EXTENDED_SAR = 255

/** Reads bits, the highest first; past the end there are zeros. */
function bitReader(bytes: Uint8Array) {
  let at = 0
  const bit = (): number => {
    const byte = bytes[at >> 3] ?? 0
    return (byte >> (7 - (at++ & 7))) & 1
  }
  const bits = (n: number): number => {
    let value = 0
    for (let i = 0; i < n; i++) value = value * 2 + bit()
    return value
  }
  /** Exponential Golomb code, 9.1. */
  const golomb = (): number => {
    let zeros = 0
    while (zeros < 32 && bit() === 0) zeros++
    return 2 ** zeros - 1 + bits(zeros)
  }
  const signed = (): number => {
    const code = golomb()
    return code % 2 === 1 ? (code + 1) / 2 : -code / 2
  }
  return { bits, golomb, signed, over: () => at > bytes.length * 8 }
}

type Bits = ReturnType<typeof bitReader>

function skipScalingLists({ bits, signed }: Bits, lists: number): void {
  for (let i = 0; i < lists; i++) {
    if (bits(1) === 0) continue
    let last = 8
    let next = 8
    for (let j = 0; j < (i < 6 ? 16 : 64); j++) {
      if (next !== 0) next = (last + signed() + 256) % 256
      last = next === 0 ? last : next
    }
  }
}

function skipToAppearance(b: Bits): void {
  const profile = b.bits(8)
  b.bits(16)
  b.golomb()
  if (HIGH.includes(profile)) {
    const format = b.golomb()
    if (format === 3) b.bits(1)
    b.golomb()
    b.golomb()
    b.bits(1)
    if (b.bits(1)) skipScalingLists(b, format === 3 ? 12 : 8)
  }
  b.golomb()
  const order = b.golomb()
  if (order === 0) b.golomb()
  else if (order === 1) {
    b.bits(1)
    b.signed()
    b.signed()
    for (let i = Math.min(255, b.golomb()); i > 0; i--) b.signed()
  }
  b.golomb()
  b.bits(1)
  b.golomb()
  b.golomb()
  if (b.bits(1) === 0) b.bits(1)
  b.bits(1)
  if (b.bits(1)) for (let i = 0; i < 4; i++) b.golomb()
}

function readAppearance(b: Bits): H264Colours {
  if (b.bits(1) === 0) return NOTHING
  if (b.bits(1) && b.bits(8) === EXTENDED_SAR) b.bits(32)
  if (b.bits(1)) b.bits(1)
  let matrix: number | null = null
  let fullRange: boolean | null = null
  if (b.bits(1)) {
    b.bits(3)
    fullRange = b.bits(1) === 1
    if (b.bits(1)) {
      b.bits(16)
      const said = b.bits(8)
      if (said !== UNSPECIFIED) matrix = said
    }
  }
  const chroma = b.bits(1) ? b.golomb() : null
  return b.over() ? NOTHING : { matrix, fullRange, chroma: chroma !== null && chroma <= 5 ? chroma : null }
}

/** Without the bytes that keep start codes apart, 7.4.1. */
const plain = (nal: Uint8Array): Uint8Array =>
  nal.filter((byte, i) => !(byte === 3 && i >= 2 && nal[i - 1] === 0 && nal[i - 2] === 0))

/** Reads the first parameter set of an avcC record (ISO/IEC 14496-15, 5.3.3); says nothing of what is damaged. */
export function h264Colours(record: Uint8Array): H264Colours {
  const sets = (record[5] ?? 0) & 31
  const length = ((record[6] ?? 0) << 8) | (record[7] ?? 0)
  if (record[0] !== 1 || sets === 0 || length < 4 || 8 + length > record.length) return NOTHING
  // The first byte tells what kind of unit it is.
  const b = bitReader(plain(record.subarray(8, 8 + length)).subarray(1))
  skipToAppearance(b)
  return readAppearance(b)
}
