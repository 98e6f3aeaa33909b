// What a command is, and what commands ask of the store again and again.
import type { Layer, Shot } from '../../core/shot'
import type { StageEngine } from '../engine/stage-engine'
import { chosenIds, chosenLayer, layersChosen, projectOf, shotOf, store } from '../store'

export type CommandGroup =
  | 'Time'
  | 'Picture'
  | 'Layer'
  | 'Outline'
  | 'Cut'
  | 'Repeat'
  | 'Sound'
  | 'Group'
  | 'Edit'
  | 'Go to'
  | 'Take'
  | 'Room'

export interface Command {
  id: string
  name: string
  group: CommandGroup
  /** As react-hotkeys-hook writes them; the first one is shown. None: reached by menus and the finder. */
  keys?: string
  /** The browser's own event does it when the keys are pressed. */
  native?: boolean
  /** Whether it makes sense now; left out: always. */
  applies?: () => boolean
  run: (stage: StageEngine) => void
}

export const view = () => store.getState().view
export const shot = (): Shot | null => shotOf(store.getState())
export const chosen = (): Layer | null => chosenLayer(store.getState())
export const takes = () => projectOf(store.getState())?.takes ?? []
export const ids = (): string[] => chosenIds(store.getState())

/** The chosen layers, in depth order. */
export function layers(): Layer[] {
  const wanted = new Set(ids())
  return shot()?.layers.filter(l => wanted.has(l.id)) ?? []
}

/** A shot is on the stage, not a take alone. */
export const inShot = (): boolean => view().take === null && shot() !== null
export const hasLayer = (): boolean => inShot() && layers().length > 0
/** Something chosen may be changed. */
export const canChange = (): boolean => inShot() && layers().some(l => !l.locked)
export const one = (): boolean => inShot() && ids().length === 1 && chosen()?.locked === false
/** The playhead lies in the only chosen layer. */
export const oneHere = (): boolean => {
  const layer = chosen()
  const { frame } = view()
  return one() && layer !== null && frame >= layer.span.from && frame < layer.span.to
}

/** Runs an edit and chooses the layers that it made, if it made any. */
export function choosingNew(run: () => void): boolean {
  const before = new Set(shot()?.layers.map(l => l.id))
  run()
  const made =
    shot()
      ?.layers.filter(l => !before.has(l.id))
      .map(l => l.id) ?? []
  if (made.length > 0) store.dispatch(layersChosen(made))
  return made.length > 0
}
