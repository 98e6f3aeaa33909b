// What the first frame of a VP9 film says of its colours: VP9 bitstream specification, 6.2 and 7.2.2.

/** Numbers as ITU-T H.273 counts them; null where nothing is said. */
export interface Vp9Colours {
  matrix: number | null
  fullRange: boolean | null
}

const NOTHING: Vp9Colours = { matrix: null, fullRange: null }
const SYNC = [0x49, 0x83, 0x42]
/** By color_space. */
const MATRICES: readonly (number | null)[] = [null, 6, 1, 6, 7, 9, null, null]

/** Reads the head of a key frame; says nothing of anything else. */
export function vp9Colours(frame: Uint8Array): Vp9Colours {
  let at = 0
  const bits = (n: number): number => {
    let value = 0
    for (let i = 0; i < n; i++, at++) value = value * 2 + (((frame[at >> 3] ?? 0) >> (7 - (at & 7))) & 1)
    return value
  }
  if (bits(2) !== 2) return NOTHING
  const profile = bits(1) + bits(1) * 2
  if (profile === 3) bits(1)
  const isShownAgain = bits(1)
  const isInter = bits(1)
  bits(2)
  if (isShownAgain || isInter || SYNC.some(byte => bits(8) !== byte)) return NOTHING
  if (profile >= 2) bits(1)
  const space = bits(3)
  const matrix = MATRICES[space] ?? null
  return { matrix, fullRange: matrix === null ? null : bits(1) === 1 }
}
