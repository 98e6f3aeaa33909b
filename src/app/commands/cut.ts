// Cutting in time: split, join, trim, nudge, slip, delete.
import { asTake, edits, endsEarly } from '../../core/shot'
import { chosenKeys, type Dialog, dialogOpened, edit, store } from '../store'
import {
  type Command,
  canChange,
  choosingNew,
  chosen,
  hasLayer,
  ids,
  inShot,
  layers,
  one,
  oneHere,
  shot,
  takes,
  view,
} from './command'
import { removePoints } from './outline'
import { removeLayers } from './remove'
import { say, tell } from './say'

const ask = (dialog: Dialog) => () => void store.dispatch(dialogOpened(dialog))

function nudge(by: number): void {
  const moves = layers().map(l => ({ layer: l.id, from: l.span.from + by }))
  store.dispatch(edit('slideLayers', moves))
}

function trimHere(end: edits.End): void {
  const { frame } = view()
  const moves = layers()
    .filter(l => frame >= l.span.from && frame < l.span.to)
    .map(l => ({ layer: l.id, frame: end === 'from' ? frame : frame + 1 }))
  store.dispatch(edit('trimLayers', end, moves, takes()))
}

function slip(by: number): void {
  const open = shot()
  const why = open ? layers().map(l => edits.whyNotSlipped(l, takes(), open.rate)) : []
  if (why.length > 0 && why.every(said => said !== null)) say(why[0]!)
  store.dispatch(edit('slipLayers', ids(), by, takes()))
}

function join(): void {
  const open = shot()
  const [a, b] = layers()
  if (!open || !a || !b) return
  const why = edits.whyNotJoined(open, a, b)
  if (why) say(`These two cannot be joined. ${why}`)
  else store.dispatch(edit('joinLayers', a.id, b.id))
}

function dissolve(): void {
  const [a, b] = layers()
  if (!a || !b) return
  if (edits.overlap(a, b) === 0) say('These two share no frames. Let one begin before the other ends.')
  else store.dispatch(edit('dissolveLayers', a.id, b.id))
}

const two = (): boolean => canChange() && ids().length === 2
const plays = (): boolean => one() && chosen()?.timing.kind === 'play'

export const CUT: readonly Command[] = [
  {
    id: 'split',
    name: 'Split at the playhead',
    group: 'Cut',
    keys: 'shift+x',
    applies: canChange,
    run: () => void choosingNew(() => store.dispatch(edit('splitLayers', ids(), view().frame))),
  },
  { id: 'join', name: 'Join two that follow each other', group: 'Cut', keys: 'shift+j', applies: two, run: join },
  { id: 'dissolve', name: 'Dissolve where two overlap', group: 'Cut', keys: 'shift+d', applies: two, run: dissolve },
  {
    id: 'trim-start',
    name: 'Begin at the playhead',
    group: 'Cut',
    keys: 'alt+home',
    applies: canChange,
    run: () => trimHere('from'),
  },
  {
    id: 'trim-end',
    name: 'End at the playhead',
    group: 'Cut',
    keys: 'alt+end',
    applies: canChange,
    run: () => trimHere('to'),
  },
  {
    id: 'earlier',
    name: 'Slide one frame earlier',
    group: 'Cut',
    keys: 'alt+left',
    applies: canChange,
    run: () => nudge(-1),
  },
  {
    id: 'later',
    name: 'Slide one frame later',
    group: 'Cut',
    keys: 'alt+right',
    applies: canChange,
    run: () => nudge(1),
  },
  {
    id: 'earlier-ten',
    name: 'Slide ten frames earlier',
    group: 'Cut',
    keys: 'alt+shift+left',
    applies: canChange,
    run: () => nudge(-10),
  },
  {
    id: 'later-ten',
    name: 'Slide ten frames later',
    group: 'Cut',
    keys: 'alt+shift+right',
    applies: canChange,
    run: () => nudge(10),
  },
  {
    id: 'slip-back',
    name: 'Slip the picture one frame earlier',
    group: 'Cut',
    applies: canChange,
    run: () => slip(-1),
  },
  { id: 'slip-on', name: 'Slip the picture one frame later', group: 'Cut', applies: canChange, run: () => slip(1) },
  {
    id: 'delete',
    // While a piece is under the hand, or keys are chosen, the layer under them is never meant.
    name: 'Delete the chosen keys, points or piece, or the layers, leaving the gap',
    group: 'Cut',
    keys: 'delete, backspace',
    applies: canChange,
    run() {
      const layer = chosen()
      const keys = layer ? chosenKeys(store.getState().keys, layer) : []
      const piece = layer?.matte.find(p => p.id === view().piece)
      if (layer && keys.length > 0) store.dispatch(edit('dropKeys', layer.id, keys))
      else if (view().points.length > 0) removePoints()
      else if (layer && piece && one()) {
        const before = shot()
        store.dispatch(edit('removePiece', layer.id, piece.id))
        if (shot() !== before) tell(`“${piece.name}” is deleted: undo brings it back.`)
      } else removeLayers(ids())
    },
  },
  {
    id: 'delete-close',
    name: 'Delete and close the gap',
    group: 'Cut',
    keys: 'shift+delete, shift+backspace',
    applies: canChange,
    run: () => removeLayers(ids(), true),
  },
  {
    id: 'freeze',
    name: 'Freeze at the playhead',
    group: 'Repeat',
    keys: 'shift+f',
    applies: oneHere,
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('freezeLayer', layer.id, view().frame))
    },
  },
  {
    id: 'stand',
    name: 'Let it stand until the shot’s end',
    group: 'Repeat',
    applies() {
      const [layer, open] = [chosen(), shot()]
      return one() && !!layer && !!open && endsEarly(layer, open)
    },
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('standLayer', layer.id, view().frame))
    },
  },
  {
    id: 'unfreeze',
    name: 'Let it run again',
    group: 'Repeat',
    applies: () => one() && chosen()?.timing.kind !== 'play',
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('playLayer', layer.id, takes()))
    },
  },
  { id: 'hold', name: 'Hold still for a while…', group: 'Repeat', keys: 'h', applies: oneHere, run: ask('hold') },
  { id: 'loop', name: 'Loop…', group: 'Repeat', keys: 'l', applies: plays, run: ask('loop') },
  { id: 'stutter', name: 'Stutter…', group: 'Repeat', keys: 't', applies: one, run: ask('stutter') },
  { id: 'copies', name: 'Row of copies…', group: 'Repeat', keys: 'r', applies: one, run: ask('copies') },
  {
    id: 'speed',
    name: 'Speed…',
    group: 'Repeat',
    keys: 's',
    applies: () => one() && chosen()?.timing.kind !== 'freeze',
    run: ask('speed'),
  },
  {
    id: 'backwards',
    name: 'Turn backwards or forwards',
    group: 'Repeat',
    keys: 'shift+r',
    applies: () => one() && chosen()?.timing.kind !== 'freeze',
    run() {
      const layer = chosen()
      if (layer && layer.timing.kind !== 'freeze')
        store.dispatch(edit('setSpeed', layer.id, -layer.timing.speed, takes()))
    },
  },
  { id: 'mark', name: 'Mark this frame…', group: 'Go to', keys: 'm', applies: inShot, run: ask('mark') },
  { id: 'form', name: 'Size, rate and length of the shot…', group: 'Edit', applies: inShot, run: ask('form') },
  {
    id: 'mute',
    name: 'Sound on or off',
    group: 'Sound',
    keys: 'shift+n',
    applies: canChange,
    run: () => void store.dispatch(edit('soundLayers', ids(), !layers().some(l => l.sound.on))),
  },
  {
    id: 'detach',
    name: 'Detach the sound',
    group: 'Sound',
    applies: () => one() && hasSound(),
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('detachSound', layer.id))
    },
  },
  {
    id: 'drop-sound',
    name: 'Drop the sound',
    group: 'Sound',
    applies: () => one() && hasSound(),
    run() {
      const layer = chosen()
      if (layer) store.dispatch(edit('dropSound', layer.id))
    },
  },
]

function hasSound(): boolean {
  const layer = chosen()
  const source = layer && asTake(layer.source)
  if (source?.use !== 'both') return false
  return takes().some(t => t.digest === source.digest && t.sound !== null) && hasLayer()
}
