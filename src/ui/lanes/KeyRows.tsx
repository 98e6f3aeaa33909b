// The rows of keys of the open layer: a box over them chooses keys of several values, a bracket stretches those in time.
import { useState } from 'react'
import { chosenKeys, editIn, keysChosen, letGo, sendByHand, useSend, useStore } from '../../app/store'
import { keysOf } from '../../core/keys'
import { getValue, type Layer, type ValuePath } from '../../core/shot'
import { useDrag } from '../common/use-drag'
import { type Box, BoxMark, boxBetween } from './Box'
import { KEY_ROW, KeyRow } from './KeyRow'
import { useLanes } from './lanes-context'
import { type BegunKeys, begunKeys, movedKeys } from './use-key-drag'

/** px of a key's mark that have to lie in a box. */
const MARK = 5
/** px from the outermost keys to the bracket's ends. */
const BESIDE = 12

interface Began {
  keys: BegunKeys
  /** The end that is dragged, and the one that stays. */
  from: number
  about: number
}

/** A bracket over the rows in which keys are chosen; its ends stretch them about each other. */
function Bracket({ layer, paths }: { layer: Layer; paths: readonly ValuePath[] }) {
  const send = useSend()
  const { scale } = useLanes()
  // As text, so that it is made anew only where other keys are chosen.
  const text = useStore(s => JSON.stringify(chosenKeys(s.keys, layer)))
  const keys: ReturnType<typeof chosenKeys> = JSON.parse(text)
  const frames = keys.flatMap(k => k.frames)
  const names = paths.map(path => JSON.stringify(path))
  const rows = keys.map(k => Math.max(0, names.indexOf(JSON.stringify(k.path))))
  const [top, bottom] = [Math.min(...rows) * KEY_ROW, (Math.max(...rows) + 1) * KEY_ROW]
  const [first, last] = [Math.min(...frames), Math.max(...frames)]
  const stretch = (from: number, about: number) => ({
    start: (): Began => ({ keys: begunKeys(layer, keys), from, about }),
    move({ keys: begun, from, about }: Began, { dx, gesture }: { dx: number; gesture: string }) {
      const long = from - about
      // Never turned round, and a frame long at least.
      const now = long + Math.round(dx / scale.perFrame)
      const factor = (long > 0 ? Math.max(1, now) : Math.min(-1, now)) / long
      sendByHand(editIn(gesture, 'retimeKeys', layer.id, begun, { about, factor, by: 0 }))
      send(keysChosen({ layer: layer.id, keys: movedKeys(begun, frame => about + (frame - about) * factor) }))
    },
    end: letGo,
  })
  const before = useDrag<Began>(stretch(first, last))
  const after = useDrag<Began>(stretch(last, first))
  if (!(last > first)) return null
  const ends = [
    { side: 'first', x: scale.x(first) - BESIDE, drag: before, look: 'rounded-l-md border-l-2' },
    { side: 'last', x: scale.x(last) + BESIDE - 7, drag: after, look: 'rounded-r-md border-r-2' },
  ] as const
  return ends.map(({ side, x, drag, look }) => (
    <span
      key={side}
      data-bracket={side}
      title="Drag to stretch the chosen keys in time"
      className={`absolute z-10 w-[7px] cursor-ew-resize touch-none border-y-2 border-lime ${look}`}
      style={{ left: x, top, height: bottom - top }}
      {...drag}
    />
  ))
}

export function KeyRows({ layer, paths, top }: { layer: Layer; paths: readonly ValuePath[]; top: number }) {
  const send = useSend()
  const { scale } = useLanes()
  const [box, setBox] = useState<Box | null>(null)
  const boxing = useDrag<{ x: number; y: number; left: number; top: number }>({
    start(event) {
      // What is pressed in a key's menu comes by here too.
      if (!event.currentTarget.contains(event.target as Node)) return null
      const area = event.currentTarget.getBoundingClientRect()
      return { x: event.clientX - area.left, y: event.clientY - area.top, left: area.left, top: area.top }
    },
    move(from, { x, y }) {
      const next = boxBetween(from, { x: x - from.left, y: y - from.top })
      setBox(next)
      const keys = paths.flatMap((path, i) => {
        const middle = (i + 0.5) * KEY_ROW
        if (middle + MARK < next.top || middle - MARK > next.bottom) return []
        const inside = keysOf(getValue(layer, path)!).filter(k => {
          const at = scale.x(k.frame)
          return at + MARK > next.left && at - MARK < next.right
        })
        return inside.length > 0 ? [{ path, frames: inside.map(k => k.frame) }] : []
      })
      send(keysChosen({ layer: layer.id, keys }))
    },
    end(_, moved) {
      setBox(null)
      if (!moved) send(keysChosen({ layer: layer.id, keys: [] }))
    },
  })
  return (
    <div className="absolute inset-x-0 touch-none" style={{ top }} {...boxing}>
      {paths.map(path => (
        <KeyRow key={JSON.stringify(path)} layer={layer} path={path} />
      ))}
      <Bracket layer={layer} paths={paths} />
      {box && <BoxMark box={box} />}
    </div>
  )
}
