import { editIn, layerChosen, useSend, useStore } from '../../app/store'
import { keysOf } from '../../core/keys'
import { type AnyValue, getValue, keyedPaths, type Layer, type ValuePath } from '../../core/shot'
import { useDrag } from '../common/use-drag'
import { useEngine } from '../stage/engine-context'
import { KeyMark } from './KeyMark'
import type { TimeScale } from './time-scale'

const WORDS: Record<ValuePath['of'], string> = {
  line: 'line',
  frame: 'frame',
  inside: 'feather in',
  outside: 'feather out',
  grow: 'grow',
  strength: 'strength',
  opacity: 'Opacity',
  place: 'Place',
  gain: 'Gain',
}

function pathName(layer: Layer, path: ValuePath): string {
  if (!('piece' in path)) return WORDS[path.of]
  return `${layer.matte.find(p => p.id === path.piece)?.name ?? ''} · ${WORDS[path.of]}`
}

function KeyRow({ layer, path, scale }: { layer: Layer; path: ValuePath; scale: TimeScale }) {
  const name = pathName(layer, path)
  const send = useSend()
  const engine = useEngine()
  const readOnly = useStore(s => s.view.readOnly)
  const value = getValue(layer, path)!
  const keys = keysOf(value)
  const drag = useDrag<{ frame: number; began: AnyValue }>({
    start: event => {
      const mark = (event.target as Element).closest<HTMLElement>('[data-key]')
      return mark && !readOnly ? { frame: Number(mark.dataset.key), began: value } : null
    },
    move: ({ frame, began }, { dx, gesture }) => {
      const to = frame + Math.round(dx / scale.perFrame)
      send(editIn(gesture, 'slideKey', layer.id, path, frame, to, began))
    },
    end: ({ frame }, moved) => {
      if (!moved) engine?.goTo(frame)
    },
  })
  return (
    <div className="relative h-5 touch-none" data-keys={name} {...drag}>
      <span className="absolute left-2 w-[100px] truncate text-xs leading-5 text-quiet">{name}</span>
      <span
        className="absolute top-1/2 h-px bg-line"
        style={{ left: scale.x(keys[0]!.frame), width: (keys.at(-1)!.frame - keys[0]!.frame) * scale.perFrame }}
      />
      {keys.map((k, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a key that is stepped along must keep its focus
        <KeyMark key={i} layer={layer} path={path} name={name} keyed={k} scale={scale} />
      ))}
    </div>
  )
}

/** A layer in time: its bar, and when it is chosen a row for each value that has keys. */
export function Lane({ layer, scale }: { layer: Layer; scale: TimeScale }) {
  const send = useSend()
  const chosen = useStore(s => s.view.layer === layer.id)
  const readOnly = useStore(s => s.view.readOnly)
  const drag = useDrag<number>({
    start: () => {
      send(layerChosen(layer.id))
      return readOnly ? null : layer.span.from
    },
    move: (from, { dx, gesture }) =>
      send(editIn(gesture, 'slideLayer', layer.id, from + Math.round(dx / scale.perFrame))),
  })
  const { from, to } = layer.span
  return (
    <li data-lane={layer.name}>
      <div className="relative h-8">
        <button
          type="button"
          aria-pressed={chosen}
          aria-label={`${layer.name}, frames ${from + 1} to ${to}. Drag to slide in time`}
          className={`absolute inset-y-0.5 cursor-ew-resize touch-none overflow-hidden rounded-md px-2 text-left ${
            chosen ? 'bg-raised outline-2 -outline-offset-2 outline-lime' : 'bg-card hover:bg-raised'
          } ${layer.on ? '' : 'opacity-40'}`}
          style={{ left: scale.x(from), width: Math.max(6, (to - from) * scale.perFrame) }}
          {...drag}
        >
          <span
            className="absolute inset-0 opacity-60"
            style={{
              background: 'repeating-linear-gradient(115deg, transparent 0 14px, rgb(255 255 255 / 3%) 14px 15px)',
            }}
          />
          <span className="relative font-bold">{layer.name}</span>
          {!layer.on && <span className="relative ml-2 text-quiet">hidden</span>}
        </button>
      </div>
      {chosen &&
        keyedPaths(layer).map(path => <KeyRow key={JSON.stringify(path)} layer={layer} path={path} scale={scale} />)}
    </li>
  )
}
