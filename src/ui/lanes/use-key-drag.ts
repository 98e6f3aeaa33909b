// What a hand does with keys: choose them, move them together, leave copies of them.
import type { PointerEvent } from 'react'
import { chosenKeys, editIn, keysChosen, letGo, sendByHand, store, useSend } from '../../app/store'
import { type AnyValue, type edits, getValue, type Layer, type ValuePath } from '../../core/shot'
import { useDrag } from '../common/use-drag'
import { useEngine } from '../stage/engine-context'
import { useLanes } from './lanes-context'

/** Keys as they are when a drag begins, each with its value as it was. */
export type BegunKeys = readonly (edits.KeysAt & { began: AnyValue })[]

export const begunKeys = (layer: Layer, keys: readonly edits.KeysAt[]): BegunKeys =>
  keys.map(k => ({ ...k, began: getValue(layer, k.path)! }))

/** The same keys where they have been brought. */
export const movedKeys = (keys: readonly edits.KeysAt[], to: (frame: number) => number): edits.KeysAt[] =>
  keys.map(({ path, frames }) => ({ path, frames: frames.map(frame => Math.round(to(frame))) }))

interface Began {
  frame: number
  keys: BegunKeys
  copying: boolean
}

const same = (a: ValuePath, b: ValuePath): boolean => JSON.stringify(a) === JSON.stringify(b)

/** Handlers of one value's row: a press on a key takes it, and with it those that are chosen; with Shift it is one more or less. */
export function useKeyDrag(layer: Layer, path: ValuePath, markOf: (event: PointerEvent) => number | null) {
  const send = useSend()
  const engine = useEngine()
  const { scale } = useLanes()
  const choose = (keys: readonly edits.KeysAt[]) => send(keysChosen({ layer: layer.id, keys }))
  return useDrag<Began>({
    start(event) {
      const frame = markOf(event)
      if (frame === null) return null
      const now = chosenKeys(store.getState().keys, layer)
      const own = now.find(k => same(k.path, path))?.frames ?? []
      const isChosen = own.includes(frame)
      if (event.shiftKey) {
        const others = now.filter(k => !same(k.path, path))
        choose([...others, { path, frames: isChosen ? own.filter(f => f !== frame) : [...own, frame] }])
        // Nothing is dragged, and no box is drawn.
        event.stopPropagation()
        return null
      }
      const keys = isChosen ? now : [{ path, frames: [frame] }]
      if (!isChosen) choose(keys)
      return { frame, keys: begunKeys(layer, keys), copying: event.altKey }
    },
    move({ keys, copying }, { dx, gesture }) {
      const by = Math.round(dx / scale.perFrame)
      sendByHand(editIn(gesture, 'retimeKeys', layer.id, keys, { about: 0, factor: 1, by }, copying))
      choose(movedKeys(keys, frame => frame + by))
    },
    end({ frame }, moved) {
      letGo()
      if (moved) return
      choose([{ path, frames: [frame] }])
      engine?.goTo(frame)
    },
  })
}
