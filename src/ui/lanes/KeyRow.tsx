import { ContextMenu } from 'radix-ui'
import { memo, useCallback, useState } from 'react'
import { edit, editIn, letGo, sendByHand, useSend, useStore } from '../../app/store'
import { type Ease, keysOf } from '../../core/keys'
import { type AnyValue, getValue, type Layer, type ValuePath } from '../../core/shot'
import { useDrag } from '../common/use-drag'
import { useEngine } from '../stage/engine-context'
import { KeyForm, KeyMark } from './KeyMark'
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

const EASES: readonly [Ease, string][] = [
  ['linear', 'Linear'],
  ['smooth', 'Smooth'],
  ['hold', 'Hold'],
]

const item = 'cursor-default rounded-lg px-2.5 py-1 outline-none data-[highlighted]:bg-raised'

interface MenuProps {
  ease: Ease | undefined
  onEase: (ease: Ease) => void
  onDrop: () => void
}

function KeyMenu({ ease: now, onEase, onDrop }: MenuProps) {
  return (
    <ContextMenu.Content className="z-40 min-w-36 rounded-xl border border-line bg-card p-1 shadow-xl shadow-black/50">
      {EASES.map(([ease, word]) => (
        <ContextMenu.Item key={ease} className={item} onSelect={() => onEase(ease)}>
          <span className="inline-flex items-center gap-2">
            <svg
              viewBox="-8 -8 16 16"
              width="14"
              height="14"
              fill="currentColor"
              className="text-ghost"
              aria-hidden="true"
            >
              <KeyForm ease={ease} />
            </svg>
            {word}
            {ease === now && <span className="text-quiet">now</span>}
          </span>
        </ContextMenu.Item>
      ))}
      <ContextMenu.Separator className="my-1 h-px bg-line" />
      <ContextMenu.Item className={item} onSelect={onDrop}>
        Delete the key
      </ContextMenu.Item>
    </ContextMenu.Content>
  )
}

/** The keys of one value, on the line of time: dragged, stepped and deleted, their ease in their menu. */
export const KeyRow = memo(function KeyRow({ layer, path }: { layer: Layer; path: ValuePath }) {
  const name = pathName(layer, path)
  const send = useSend()
  const engine = useEngine()
  const { scale } = useLanes()
  const [aimed, setAimed] = useState<number | null>(null)
  const fixed = useStore(s => s.view.readOnly) || layer.locked
  const value = getValue(layer, path)!
  const keys = keysOf(value)
  const markOf = (event: { target: EventTarget }): number | null => {
    const mark = (event.target as Element).closest<HTMLElement>('[data-key]')
    return mark ? Number(mark.dataset.key) : null
  }
  const drag = useDrag<{ frame: number; began: AnyValue }>({
    start: event => {
      const frame = markOf(event)
      return frame === null || fixed ? null : { frame, began: value }
    },
    move: ({ frame, began }, { dx, gesture }) => {
      const to = frame + Math.round(dx / scale.perFrame)
      sendByHand(editIn(gesture, 'slideKey', layer.id, path, frame, to, began))
    },
    end: ({ frame }, moved) => {
      letGo()
      if (!moved) engine?.goTo(frame)
    },
  })
  // The path is made anew at each change; its words are what it is.
  const told = JSON.stringify(path)
  const onGo = useCallback((frame: number) => engine?.goTo(frame), [engine])
  const onDrop = useCallback(
    (frame: number) => void send(edit('dropKey', layer.id, JSON.parse(told), frame)),
    [send, layer.id, told],
  )
  const onStep = useCallback(
    (frame: number, by: 1 | -1) =>
      void send(editIn(`step ${layer.id} ${told}`, 'slideKey', layer.id, JSON.parse(told), frame, frame + by)),
    [send, layer.id, told],
  )
  const inView = keys.filter(k => scale.x(k.frame) > -12 && scale.x(k.frame) < scale.width + 12)
  return (
    <ContextMenu.Root>
      <ContextMenu.Trigger
        asChild
        disabled={fixed}
        onContextMenu={event => {
          // The bars' own menu is for bars.
          event.stopPropagation()
          const frame = markOf(event)
          if (frame === null) event.preventDefault()
          setAimed(frame)
        }}
      >
        <div className="relative touch-none" style={{ height: KEY_ROW }} data-keys={name} {...drag}>
          <span
            className="absolute top-1/2 h-px bg-line"
            style={{ left: scale.x(keys[0]!.frame), width: (keys.at(-1)!.frame - keys[0]!.frame) * scale.perFrame }}
          />
          {inView.map(k => (
            <KeyMark
              key={keys.indexOf(k)}
              name={name}
              frame={k.frame}
              ease={k.ease}
              x={scale.x(k.frame)}
              onGo={onGo}
              onDrop={onDrop}
              onStep={onStep}
            />
          ))}
        </div>
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <KeyMenu
          ease={keys.find(k => k.frame === aimed)?.ease}
          onEase={ease => aimed !== null && send(edit('easeKey', layer.id, path, aimed, ease))}
          onDrop={() => aimed !== null && onDrop(aimed)}
        />
      </ContextMenu.Portal>
    </ContextMenu.Root>
  )
})
