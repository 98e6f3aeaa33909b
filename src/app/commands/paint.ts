// Painting what is kept and what is lost of a cut-out.
import type { Stroke } from '../../core/plate/strokes'
import { brushSet, pieceChosen, store } from '../store'
import { type Command, chosen, one, view } from './command'

/** The cut-out that is chosen, or the first of the layer. */
function cutOut() {
  const own = chosen()?.matte.filter(p => p.shape.kind === 'cutout') ?? []
  return own.find(p => p.id === view().piece) ?? own[0] ?? null
}

const hasCutOut = (): boolean => one() && cutOut() !== null

/** Takes up a brush; pressed again it is put down. */
function brush(does: Stroke['does']): void {
  const [layer, piece] = [chosen(), cutOut()]
  if (!layer || !piece) return
  const isUp = store.getState().brush.does === does
  store.dispatch(pieceChosen({ layer: layer.id, piece: piece.id }))
  store.dispatch(brushSet({ does: isUp ? null : does }))
}

export const PAINT: readonly Command[] = [
  {
    id: 'paint-keep',
    name: 'Paint what is kept of a cut-out',
    group: 'Picture',
    keys: 'p',
    applies: hasCutOut,
    run: () => brush('keep'),
  },
  {
    id: 'paint-lose',
    name: 'Paint what is lost of a cut-out',
    group: 'Picture',
    keys: 'z',
    applies: hasCutOut,
    run: () => brush('lose'),
  },
]
