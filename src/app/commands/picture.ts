// Ways of looking, and the pieces of a matte.
import { VIEWS } from '../../core/plan'
import { edits } from '../../core/shot'
import { cameraMoved, edit, keyingSet, pieceChosen, projectOf, store, viewChosen } from '../store'
import { type Command, canChange, chosen, ids, one, shot, view } from './command'

function startPiece(kind: 'edge' | 'box' | 'oval'): void {
  const layer = chosen()
  const project = projectOf(store.getState())
  const open = shot()
  if (!layer || !project || !open) return
  const piece = edits.startPiece(kind, edits.layerSize(layer, open, project.takes))
  store.dispatch(edit('addPiece', layer.id, piece))
  store.dispatch(pieceChosen({ layer: layer.id, piece: piece.id }))
}

/** Places the picture whole in the frame, or over all of it. */
function frameLayer(how: 'fit' | 'fill'): void {
  const layer = chosen()
  const open = shot()
  if (!layer || !open) return
  const size = edits.layerSize(layer, open, projectOf(store.getState())?.takes ?? [])
  const place = edits.framed(layer, size, open.size, how)
  store.dispatch(edit('setValue', layer.id, { of: 'place' }, view().frame, place, view().keying))
}

export const PICTURE: readonly Command[] = [
  {
    id: 'fit',
    name: 'Whole picture',
    group: 'Picture',
    keys: 'shift+w',
    run: () => void store.dispatch(cameraMoved(null)),
  },
  {
    id: 'next-view',
    name: 'Next way of looking',
    group: 'Picture',
    keys: 'w',
    run() {
      store.dispatch(viewChosen(VIEWS[(VIEWS.indexOf(view().view) + 1) % VIEWS.length]!))
    },
  },
  {
    id: 'keying',
    name: 'Keying on or off',
    group: 'Edit',
    keys: 'shift+k',
    run: () => void store.dispatch(keyingSet(!view().keying)),
  },
  {
    id: 'matte',
    name: 'Take the matte away or bring it back',
    group: 'Layer',
    keys: 'shift+m',
    applies: one,
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('switchMatte', layer.id, !layer.matteOn))
    },
  },
  { id: 'edge', name: 'New edge', group: 'Layer', keys: 'shift+e', applies: one, run: () => startPiece('edge') },
  { id: 'box', name: 'New box', group: 'Layer', keys: 'shift+b', applies: one, run: () => startPiece('box') },
  { id: 'oval', name: 'New oval', group: 'Layer', keys: 'shift+o', applies: one, run: () => startPiece('oval') },
  {
    id: 'fit-layer',
    name: 'Fit the layer into the frame',
    group: 'Picture',
    applies: one,
    run: () => frameLayer('fit'),
  },
  {
    id: 'fill-layer',
    name: 'Fill the frame with the layer',
    group: 'Picture',
    applies: one,
    run: () => frameLayer('fill'),
  },
  ...(['across', 'down'] as const).map(
    (way): Command => ({
      id: `flip-${way}`,
      name: way === 'across' ? 'Flip left and right' : 'Flip top and bottom',
      group: 'Picture',
      applies: canChange,
      run() {
        store.dispatch(edit('flipLayers', ids(), way))
      },
    }),
  ),
]
