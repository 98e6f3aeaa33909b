// Planned pieces -> rows of coverage.
import type { PlannedPiece } from '../plan'
import type { Kernels } from '../render/kernels'
import { type Composing, openShape } from '../shape'
import { openSweep } from './sweep'

const MODES = { add: 0, subtract: 1, intersect: 2 } as const

/** Row y of a matte, n f32 in 0..1 at out; `spare` is room for another row. */
export type MatteRow = (y: number, out: number, spare: number) => void

const open = (k: Kernels, piece: PlannedPiece, making: Composing) =>
  piece.sweep.length > 0 ? openSweep(k, piece.sweep, piece, making) : openShape(k, piece.shape, piece, making)

/**
 * Opens a matte for a frame of some size, and joins its pieces, in order, row by row. The first piece starts from nothing
 * if it adds, from everything if it subtracts or intersects. What it reserves belongs to the present scope. Throws OutOfMemory.
 */
export function openMatte(k: Kernels, pieces: readonly PlannedPiece[], making: Composing): MatteRow {
  const { width: n } = making.size
  const opened = pieces.map(piece => ({ piece, coverage: open(k, piece, making) }))
  const [first] = opened
  const covers = (y: number, { top, bottom }: { top: number; bottom: number }) => y >= top && y < bottom
  if (first && opened.length === 1) {
    const { piece, coverage } = first
    if (piece.join === 'add' && piece.strength === 1 && !piece.inverted) {
      return (y, out) => {
        if (covers(y, coverage)) coverage.row(y, out)
        else k.fillCoverage(out, n, 0)
      }
    }
  }
  return (y, out, spare) => {
    k.fillCoverage(out, n, first?.piece.join === 'add' ? 0 : 1)
    for (const { piece, coverage } of opened) {
      if (covers(y, coverage)) coverage.row(y, spare)
      // Where a piece covers nothing, nothing is added and nothing taken away.
      else if (piece.inverted || piece.join === 'intersect') k.fillCoverage(spare, n, 0)
      else continue
      k.joinRow(out, spare, n, MODES[piece.join], piece.strength, piece.inverted ? 1 : 0)
    }
  }
}
