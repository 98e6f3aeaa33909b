// What a hand is doing to layers in the lanes. They follow it at once; the document, with the picture and the panels that hang
// on it, follows at a pace that leaves most of the time to the hand.
import { useSyncExternalStore } from 'react'
import { innerShot, type Layer } from '../../core/shot'
import { changed, type Edited } from './project'
import { projectOf, shotOf, store } from './store'

/** How many times as long as a change of the document takes is left free after it. */
const FREE = 4

/** A layer under the hand. */
interface Held {
  layer: Layer
  /** Frames that it has been slid, all of it, since the document last followed; null when something else is done to it. */
  slid: number | null
}

let held: ReadonlyMap<string, Held> = new Map()
let pending: Edited | null = null
let timer: ReturnType<typeof setTimeout> | null = null
/** The moment from which the document may be changed again; not before the last change is on the screen. */
let free = 0
const listeners = new Set<() => void>()

function hold(layers: typeof held): void {
  if (layers.size === 0 && held.size === 0) return
  held = layers
  for (const listener of listeners) listener()
}

function commit(): void {
  if (timer !== null) clearTimeout(timer)
  timer = null
  const action = pending
  pending = null
  if (!action) return
  const began = performance.now()
  free = Number.POSITIVE_INFINITY
  store.dispatch(action)
  // Layers that are slid stay under the hand: what is in it is moved as one, without being painted again.
  const index = new Map(shotOf(store.getState())?.layers.map(l => [l.id, l]))
  const slid = [...held].flatMap(([id, { slid }]) =>
    slid === null || !index.has(id) ? [] : [{ layer: index.get(id)!, slid: 0 }],
  )
  hold(new Map(slid.map(h => [h.layer.id, h])))
  requestAnimationFrame(() =>
    setTimeout(() => {
      free = performance.now() + FREE * (performance.now() - began)
      pace()
    }),
  )
}

function pace(): void {
  if (!pending || timer !== null || free === Number.POSITIVE_INFINITY) return
  timer = setTimeout(commit, Math.max(0, free - performance.now()))
}

/** Sends an edit that says where a drag has brought layers to, counted from its beginning: the latest stands for all before. */
export function sendByHand(action: Edited): void {
  const state = store.getState()
  const project = projectOf(state)
  const before = shotOf(state)
  if (!project || !before || state.view.readOnly) return
  const { into } = state.view
  const outcome = changed(project, { ...action, payload: { ...action.payload, into } })
  const after = outcome.ok ? innerShot(outcome.value.shot, into) : before
  const index = new Map(before.layers.map(l => [l.id, l]))
  const slides = action.payload.name === 'slideLayers'
  const moved = after?.layers.filter(l => l !== index.get(l.id) || held.has(l.id)) ?? []
  hold(
    new Map(moved.map(l => [l.id, { layer: l, slid: slides ? l.span.from - (index.get(l.id) ?? l).span.from : null }])),
  )
  pending = action
  pace()
}

/** The hand lets go: the document has what it did. */
export function letGo(): void {
  commit()
  hold(new Map())
}

const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

/** A layer as the hand has it just now, or null if it has not. */
export const heldOf = (id: string): Held | null => held.get(id) ?? null

export const useHeld = (id: string): Held | null => useSyncExternalStore(subscribe, () => heldOf(id))
