// Layers that are drawn instead of filmed.

import { SHAPES } from '../../core/shape'
import { isPlate, type Layer, makePanel } from '../../core/shot'
import { addGraphic, addLettering, lettersToPieces } from '../engine/lettering'
import { drawingSet, pieceChosen, store, typingSet } from '../store'
import { type Command, chosen, inShot, one, shot, view } from './command'
import { say } from './say'

const canAdd = (): boolean => inShot() && !view().readOnly

/** A panel of a shape that is still to be drawn is nothing yet. */
function addPanel(shape: Parameters<typeof makePanel>[1]): void {
  const open = shot()
  if (!open) return
  const layer = makePanel(open, shape)
  addGraphic(layer)
  const [piece] = layer.matte
  if (!piece) return
  store.dispatch(pieceChosen({ layer: layer.id, piece: piece.id }))
  if (SHAPES[piece.shape.kind].isDrawn) store.dispatch(drawingSet(true))
}

/** The chosen layer; where that is a plate, behind which nothing shows, the one before it. */
function nearerThanPlate(): Layer | undefined {
  const [layer, open] = [chosen(), shot()]
  if (!layer || !open || !isPlate(layer, open)) return layer ?? undefined
  return open.layers[open.layers.indexOf(layer) - 1]
}

export const GRAPHICS: readonly Command[] = [
  {
    id: 'lettering',
    name: 'New lettering',
    group: 'Layer',
    keys: 'shift+t',
    applies: canAdd,
    run: stage => void addLettering(stage),
  },
  {
    id: 'lettering-behind',
    name: 'New lettering behind the chosen layer',
    group: 'Layer',
    keys: 'alt+t',
    applies: () => canAdd() && one(),
    run: stage => void addLettering(stage, nearerThanPlate()?.id),
  },
  {
    id: 'type',
    name: 'Type the letters on the picture',
    group: 'Layer',
    keys: 'enter',
    applies: () => one() && chosen()?.source.kind === 'lettering' && view().section === 'source',
    run: () => void store.dispatch(typingSet(true)),
  },
  {
    id: 'letters-pieces',
    name: 'Make pieces of the letters',
    group: 'Layer',
    applies: () => one() && chosen()?.source.kind === 'lettering',
    run(stage) {
      const layer = chosen()
      if (layer) lettersToPieces(layer, stage).catch(error => say(`These letters cannot be read (${error}).`))
    },
  },
  {
    id: 'panel',
    name: 'New panel: a colour over the frame',
    group: 'Layer',
    keys: 'shift+p',
    applies: canAdd,
    run: () => addPanel(null),
  },
  ...(['box', 'oval', 'outline', 'strip'] as const).map(
    (shape): Command => ({
      id: `panel-${shape}`,
      name: `New panel: ${shape === 'box' || shape === 'strip' ? 'a' : 'an'} ${shape}`,
      group: 'Layer',
      applies: canAdd,
      run: () => addPanel(shape),
    }),
  ),
]
