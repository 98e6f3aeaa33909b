// Ways of looking, and the pieces of a matte.
import { scaling } from '../../core/affine'
import { BESIDES, VIEWS } from '../../core/plan'
import { SHAPE_KINDS, SHAPES } from '../../core/shape'
import { besideOf, carriedPiece, edits, type Layer, newId, type Piece, type Shape } from '../../core/shot'
import { writeProblem } from '../storage/database'
import { type KeptPiece, keepPiece } from '../storage/kept-pieces'
import {
  besideSet,
  cameraMoved,
  drawingSet,
  edit,
  goingAlongSet,
  keyingSet,
  pieceChosen,
  projectOf,
  store,
  viewChosen,
} from '../store'
import { type Command, canChange, chosen, ids, one, shot, takes, view } from './command'
import { say, tell } from './say'

function startPiece(kind: Shape['kind']): void {
  const layer = chosen()
  const project = projectOf(store.getState())
  const open = shot()
  if (!layer || !project || !open) return
  if (layer.locked) return void say(`“${layer.name}” is locked: unlock it first.`)
  const piece = edits.startPiece(
    kind,
    edits.layerSize(layer, open, project.takes),
    besideOf(open, project.takes, layer.id),
  )
  store.dispatch(edit('addPiece', layer.id, piece))
  store.dispatch(pieceChosen({ layer: layer.id, piece: piece.id }))
  if (SHAPES[kind].isDrawn) store.dispatch(drawingSet(true))
}

const hasPiece = (): boolean => one() && view().piece !== null

/** Where a copy of the chosen piece goes, in layers from its own. */
const COPIES = [
  ['piece-copy', 'Copy the piece', 0],
  ['piece-nearer', 'Copy the piece to the layer nearer', -1],
  ['piece-farther', 'Copy the piece to the layer farther', 1],
] as const

/** The layer so many farther than the chosen one. */
function onto(by: number) {
  const layers = shot()?.layers ?? []
  return layers[layers.findIndex(l => l.id === view().layer) + by]
}

function copyPiece(by: number): void {
  const { layer, piece } = view()
  const to = onto(by)
  if (!layer || !piece || !to) return
  const id = newId()
  store.dispatch(edit('copyPiece', layer, piece, to.id, id))
  store.dispatch(pieceChosen({ layer: to.id, piece: id }))
}

/** The chosen piece, if it says something anywhere else: what is made of a layer or of a take does not. */
function canKeep(): Piece | null {
  const piece = one() ? chosen()?.matte.find(p => p.id === view().piece) : null
  if (!piece) return null
  const { shows, files } = SHAPES[piece.shape.kind]
  return shows || files ? null : piece
}

async function keepChosen(): Promise<void> {
  const [piece, layer, open] = [canKeep(), chosen(), shot()]
  if (!piece || !layer || !open) return
  const size = piece.pinnedTo === 'shot' ? open.size : edits.layerSize(layer, open, takes())
  try {
    await keepPiece({ id: newId(), name: piece.name, piece, size, keptAt: Date.now() })
    tell(`“${piece.name}” is kept: the plus of every matte has it.`)
  } catch (error) {
    say(writeProblem(error))
  }
}

/** Puts a piece that was kept onto a layer, as large as the picture there is against the one that it was kept of. */
export function placeKept({ piece, size }: KeptPiece, layer: Layer): void {
  const open = shot()
  if (!open) return
  const to = piece.pinnedTo === 'shot' ? open.size : edits.layerSize(layer, open, takes())
  const by = Math.min(to.width / size.width, to.height / size.height)
  const map = scaling(by, (to.width - size.width * by) / 2, (to.height - size.height * by) / 2)
  const made = { ...carriedPiece(piece, map), id: newId() }
  store.dispatch(edit('addPiece', layer.id, made))
  store.dispatch(pieceChosen({ layer: layer.id, piece: made.id }))
}

function limitPiece(end: 'from' | 'until'): void {
  const { layer, piece, frame } = view()
  if (layer && piece) store.dispatch(edit('limitPiece', layer, piece, frame, end))
}

/** The piece after the chosen one, round and round; the first where none is chosen. */
function nextPiece(): void {
  const layer = chosen()
  if (!layer) return
  const at = layer.matte.findIndex(p => p.id === view().piece)
  store.dispatch(pieceChosen({ layer: layer.id, piece: layer.matte[(at + 1) % layer.matte.length]!.id }))
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

const newPiece = (kind: Shape['kind']): Command => ({
  id: kind,
  name: `New ${SHAPES[kind].name.toLowerCase()}`,
  group: 'Layer',
  keys: `shift+${SHAPES[kind].letter}`,
  applies: one,
  run: () => startPiece(kind),
})

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
    id: 'beside',
    name: 'Uncut: the rest as it is, dimmed, or seen through',
    group: 'Picture',
    keys: 'b',
    applies: one,
    run() {
      const next = (BESIDES.indexOf(view().beside) + 1) % BESIDES.length
      store.dispatch(besideSet(view().view === 'uncut' ? BESIDES[next]! : view().beside))
    },
  },
  {
    id: 'go-along',
    name: 'Let the picture go along with the piece, or stand',
    group: 'Picture',
    keys: 'shift+g',
    applies: hasPiece,
    run: () => void store.dispatch(goingAlongSet(!view().goesAlong)),
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
  ...SHAPE_KINDS.map(newPiece),
  ...COPIES.map(
    ([id, name, by]): Command => ({
      id,
      name,
      group: 'Layer',
      ...(by === 0 && { keys: 'shift+c' }),
      applies: () => hasPiece() && onto(by) !== undefined,
      run: () => copyPiece(by),
    }),
  ),
  ...(['earlier', 'later'] as const).map(
    (way): Command => ({
      id: `piece-${way}`,
      name: `Join the piece ${way}`,
      group: 'Layer',
      applies: hasPiece,
      run() {
        const { layer, piece } = view()
        const at = chosen()?.matte.findIndex(p => p.id === piece) ?? 0
        if (layer && piece) store.dispatch(edit('reorderPiece', layer, piece, way === 'earlier' ? at - 1 : at + 1))
      },
    }),
  ),
  {
    id: 'piece-next',
    name: 'Choose the next piece',
    group: 'Layer',
    keys: 'alt+q',
    applies: () => one() && (chosen()?.matte.length ?? 0) > 0,
    run: nextPiece,
  },
  {
    id: 'piece-keep',
    name: 'Keep the piece for other layers and shots',
    group: 'Layer',
    applies: () => canKeep() !== null,
    run: () => void keepChosen(),
  },
  {
    id: 'piece-from',
    name: 'Use the piece from here on',
    group: 'Layer',
    applies: hasPiece,
    run: () => limitPiece('from'),
  },
  {
    id: 'piece-until',
    name: 'Use the piece until here',
    group: 'Layer',
    applies: hasPiece,
    run: () => limitPiece('until'),
  },
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
