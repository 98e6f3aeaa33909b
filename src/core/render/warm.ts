// Each frame makes the functions that paint it anew. An engine drops machine code once nothing that could run it is left, so that
// with every large collection of garbage all of it would have to be compiled again: one frame's functions are kept for the next.
const warm: { last: unknown } = { last: null }

/** Keeps what painted a frame until another one is painted. It holds no pixels: those lie in the kernels' memory. */
export function stayWarm(painting: unknown): void {
  warm.last = painting
}
