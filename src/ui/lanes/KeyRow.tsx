import { ContextMenu } from 'radix-ui'
import { memo, useCallback, useState } from 'react'
import { edit, editIn, letGo, sendByHand, useSend, useStore } from '../../app/store'
import { type Ease, FIRST_CURVE, keysOf } from '../../core/keys'
import { type AnyValue, getValue, type Layer, type ValuePath, valueName } from '../../core/shot'
import { useDrag } from '../common/use-drag'
import { useEngine } from '../stage/engine-context'
import { EaseCurve } from './EaseCurve'
import { KeyForm, KeyMark } from './KeyMark'
import { useLanes } from './lanes-context'

export const KEY_ROW = 20

const EASES: readonly [Exclude<Ease, object>, string][] = [
  ['linear', 'Linear'],
  ['smooth', 'Smooth'],
  ['hold', 'Hold'],
]

const item = 'cursor-default rounded-lg px-2.5 py-1 outline-none data-[highlighted]:bg-raised'

interface MenuProps {
  ease: Ease | undefined
  /** A curve that is drawn is one step of the history. */
  onEase: (ease: Ease, gesture: string | null) => void
  onDrop: () => void
}

function KeyMenu({ ease: now, onEase, onDrop }: MenuProps) {
  const curve = typeof now === 'object' ? now.curve : null
  return (
    <ContextMenu.Content className="z-40 min-w-36 rounded-xl border border-line bg-card p-1 shadow-xl shadow-black/50">
      {EASES.map(([ease, word]) => (
        <ContextMenu.Item key={ease} className={item} onSelect={() => onEase(ease, null)}>
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
      {curve ? (
        <EaseCurve curve={curve} onChange={(drawn, gesture) => onEase({ curve: drawn }, gesture)} />
      ) : (
        <ContextMenu.Item
          className={item}
          onSelect={event => {
            // It is drawn right here.
            event.preventDefault()
            onEase({ curve: FIRST_CURVE }, null)
          }}
        >
          Draw the way…
        </ContextMenu.Item>
      )}
      <ContextMenu.Separator className="my-1 h-px bg-line" />
      <ContextMenu.Item className={item} onSelect={onDrop}>
        Delete the key
      </ContextMenu.Item>
    </ContextMenu.Content>
  )
}

/** The keys of one value, on the line of time: dragged, stepped and deleted, their ease in their menu. */
export const KeyRow = memo(function KeyRow({ layer, path }: { layer: Layer; path: ValuePath }) {
  const name = valueName(layer, path)
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
  const pathText = JSON.stringify(path)
  const onGo = useCallback((frame: number) => engine?.goTo(frame), [engine])
  const onDrop = useCallback(
    (frame: number) => void send(edit('dropKey', layer.id, JSON.parse(pathText), frame)),
    [send, layer.id, pathText],
  )
  const onStep = useCallback(
    (frame: number, by: 1 | -1) =>
      void send(editIn(`step ${layer.id} ${pathText}`, 'slideKey', layer.id, JSON.parse(pathText), frame, frame + by)),
    [send, layer.id, pathText],
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
          onEase={(ease, gesture) => {
            if (aimed === null) return
            const args = ['easeKey', layer.id, path, aimed, ease] as const
            send(gesture ? editIn(gesture, ...args) : edit(...args))
          }}
          onDrop={() => aimed !== null && onDrop(aimed)}
        />
      </ContextMenu.Portal>
    </ContextMenu.Root>
  )
})
