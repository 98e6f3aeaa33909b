import { editIn, useSend, useStore } from '../../app/store'
import { keysOf } from '../../core/keys'
import { type AnyValue, getValue, type Layer, type ValuePath } from '../../core/shot'
import { useDrag } from '../common/use-drag'
import { useEngine } from '../stage/engine-context'
import { KeyMark } from './KeyMark'
import { useLanes } from './lanes-context'

export const KEY_ROW = 20

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

export function pathName(layer: Layer, path: ValuePath): string {
  if (!('piece' in path)) return WORDS[path.of]
  return `${layer.matte.find(p => p.id === path.piece)?.name ?? ''} · ${WORDS[path.of]}`
}

/** The keys of one value, on the line of time. */
export function KeyRow({ layer, path }: { layer: Layer; path: ValuePath }) {
  const name = pathName(layer, path)
  const send = useSend()
  const engine = useEngine()
  const { scale } = useLanes()
  const fixed = useStore(s => s.view.readOnly) || layer.locked
  const value = getValue(layer, path)!
  const keys = keysOf(value)
  const drag = useDrag<{ frame: number; began: AnyValue }>({
    start: event => {
      const mark = (event.target as Element).closest<HTMLElement>('[data-key]')
      return mark && !fixed ? { frame: Number(mark.dataset.key), began: value } : null
    },
    move: ({ frame, began }, { dx, gesture }) => {
      const to = frame + Math.round(dx / scale.perFrame)
      send(editIn(gesture, 'slideKey', layer.id, path, frame, to, began))
    },
    end: ({ frame }, moved) => {
      if (!moved) engine?.goTo(frame)
    },
  })
  const inView = keys.filter(k => scale.x(k.frame) > -12 && scale.x(k.frame) < scale.width + 12)
  return (
    <div className="relative touch-none" style={{ height: KEY_ROW }} data-keys={name} {...drag}>
      <span
        className="absolute top-1/2 h-px bg-line"
        style={{ left: scale.x(keys[0]!.frame), width: (keys.at(-1)!.frame - keys[0]!.frame) * scale.perFrame }}
      />
      {inView.map(k => (
        <KeyMark key={keys.indexOf(k)} layer={layer} path={path} name={name} keyed={k} scale={scale} />
      ))}
    </div>
  )
}
