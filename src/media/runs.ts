// Mattes packed as runs: most of one is nothing or everything, and packing must cost next to nothing.

const LONGEST = 65535

/** Runs of equal bytes: three bytes each, the value and how many times it comes. */
export function packRuns(bytes: Uint8Array): Uint8Array {
  // Four at once where they lie so that they can be read together.
  const words = bytes.byteOffset % 4 === 0 ? new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.length >> 2) : null
  let out = new Uint8Array(1024)
  let at = 0
  for (let i = 0; i < bytes.length; ) {
    const value = bytes[i]!
    let end = i + 1
    const most = Math.min(bytes.length, i + LONGEST)
    const four = value * 0x01010101
    while (end < most && bytes[end] === value) {
      end++
      if (words && end % 4 === 0) while (end + 4 <= most && words[end >> 2] === four) end += 4
    }
    if (at + 3 > out.length) {
      const larger = new Uint8Array(out.length * 2)
      larger.set(out)
      out = larger
    }
    out[at] = value
    out[at + 1] = (end - i) & 255
    out[at + 2] = (end - i) >> 8
    at += 3
    i = end
  }
  return out.slice(0, at)
}

/** How many bytes were packed. */
export function packedLength(packed: Uint8Array): number {
  let length = 0
  for (let i = 0; i + 2 < packed.length; i += 3) length += packed[i + 1]! | (packed[i + 2]! << 8)
  return length
}

/** What was packed, at the beginning of `out`. */
export function unpackRuns(packed: Uint8Array, out: Uint8Array): void {
  for (let i = 0, at = 0; i + 2 < packed.length; i += 3) {
    const end = at + (packed[i + 1]! | (packed[i + 2]! << 8))
    out.fill(packed[i]!, at, end)
    at = end
  }
}
