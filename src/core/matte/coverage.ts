// Planned pieces -> one row of coverage at a time.
import type { PlannedPiece } from '../plan'
import type { Kernels } from '../render/kernels'

const MODES = { add: 0, subtract: 1, intersect: 2 } as const

/** One piece's own coverage of row y, n f32 at out, before inversion and strength. */
function pieceRow(k: Kernels, piece: PlannedPiece, y: number, n: number, out: number): void {
  const { shape, grow, inside, outside } = piece
  if (shape.kind === 'edge') {
    k.edgeRow(out, n, y, shape.x, shape.y, shape.nx, shape.ny, grow, inside, outside)
    return
  }
  const row = shape.kind === 'box' ? k.boxRow : k.ovalRow
  const { x, halfWidth, halfHeight, cos, sin } = shape
  row(out, n, y, x, shape.y, halfWidth, halfHeight, cos, sin, grow, inside, outside)
}

/**
 * Joins the pieces, in order, into row y of a matte: n f32 in 0..1 at out. The first piece starts from nothing if it
 * adds, from everything if it subtracts or intersects. `spare` is room for another row.
 */
export function matteRow(
  k: Kernels,
  pieces: readonly PlannedPiece[],
  y: number,
  n: number,
  out: number,
  spare: number,
) {
  const [first] = pieces
  if (pieces.length === 1 && first?.join === 'add' && first.strength === 1 && !first.inverted) {
    pieceRow(k, first, y, n, out)
    return
  }
  k.fillCoverage(out, n, first?.join === 'add' ? 0 : 1)
  for (const piece of pieces) {
    pieceRow(k, piece, y, n, spare)
    k.joinRow(out, spare, n, MODES[piece.join], piece.strength, piece.inverted ? 1 : 0)
  }
}
