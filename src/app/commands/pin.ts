// Corners of a layer pinned to four points of the picture, and riding on what is flat behind them.
import type { Box } from '../../core/affine'
import { lettersFrame } from '../../core/graphic'
import { edits, type Layer, newId, pinnedCorners } from '../../core/shot'
import { layoutAt, sourceKind, wordingOf } from '../../core/source'
import type { StageEngine } from '../engine/stage-engine'
import { edit, layersChosen, sectionOpened, store } from '../store'
import { type Command, chosen, one, shot, takes, view } from './command'
import { canRideWhole, ride } from './ride'
import { say } from './say'

/** What of a layer's picture its corners are those of, px of its source; null of letters that are not to be had. */
async function boxOf(layer: Layer, stage: StageEngine): Promise<Box | null> {
  const { source } = layer
  if (source.kind === 'lettering') {
    const letters = await stage.letters(wordingOf(source))
    const frame = letters && lettersFrame(letters, layoutAt(source, view().frame))
    if (!frame) return null
    // With their line and their shadow, which would be cut off.
    const wide = source.border?.width ?? 0
    const { x = 0, y = 0, soft = 0 } = source.shadow ?? {}
    const far = wide + soft / 2
    return {
      left: frame.left - Math.max(wide, far - x),
      top: frame.top - Math.max(wide, far - y),
      right: frame.left + frame.width + Math.max(wide, far + x),
      bottom: frame.top + frame.height + Math.max(wide, far + y),
    }
  }
  const { width, height } = edits.layerSize(layer, shot()!, takes())
  return { left: 0, top: 0, right: width, bottom: height }
}

async function pin(stage: StageEngine): Promise<void> {
  const layer = chosen()
  if (!layer) return
  const box = await boxOf(layer, stage)
  // Changed meanwhile, or another one is chosen.
  if (chosen() !== layer) return
  if (!box) return say('A font of these letters is missing, so that their corners are not known.')
  const group = newId()
  store.dispatch(edit('pinCorners', layer.id, box, view().frame, group))
  const made = shot()?.layers.find(l => l.id === group)
  if (made) {
    store.dispatch(layersChosen([group]))
    say('It has a matte: both are in a group now, whose corners are pinned.')
  }
  store.dispatch(sectionOpened('place'))
}

/** Lets the chosen layer's corners ride on what is flat inside of them, or each on the point that it lies on. */
function rideAs(what: 'surface' | 'marks') {
  return (stage: StageEngine): void => {
    const layer = chosen()
    const corners = layer && pinnedCorners(layer, view().frame)
    if (!corners) return
    const inside = what === 'surface' ? { surface: corners } : { marks: corners }
    ride(stage, { layer: layer.id, piece: null }, inside)
  }
}

const isPinned = (): boolean => one() && chosen()?.pin !== undefined

const canPin = (): boolean => {
  const layer = one() ? chosen() : null
  return layer !== null && !layer.pin && sourceKind(layer.source).hasPicture(layer.source)
}

export const PIN: readonly Command[] = [
  {
    id: 'pin-corners',
    name: 'Pin its corners',
    group: 'Picture',
    applies: canPin,
    run: stage => void pin(stage).catch(error => say(`Its corners cannot be pinned (${error}).`)),
  },
  {
    id: 'unpin-corners',
    name: 'Take the pins out',
    group: 'Picture',
    applies: isPinned,
    run: () => void store.dispatch(edit('unpinCorners', chosen()!.id)),
  },
  {
    id: 'ride-surface',
    name: 'Let its corners ride on the surface inside of them',
    group: 'Picture',
    keys: 'alt+s',
    applies: () => isPinned() && canRideWhole(),
    run: rideAs('surface'),
  },
  {
    id: 'ride-marks',
    name: 'Let each corner ride on the point under it',
    group: 'Picture',
    applies: () => isPinned() && canRideWhole(),
    run: rideAs('marks'),
  },
]
