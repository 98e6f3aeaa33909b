import { ContextMenu } from 'radix-ui'
import { memo, useCallback, useMemo, useState } from 'react'
import { chosenKeys, edit, editIn, keysChosen, useSend, useStore } from '../../app/store'
import { canCalm, type Ease, FIRST_CURVE, keysOf } from '../../core/keys'
import { type edits, getValue, type Layer, newId, type ValuePath, valueName } from '../../core/shot'
import { useEngine } from '../stage/engine-context'
import { EaseCurve } from './EaseCurve'
import { KeyForm, KeyMark } from './KeyMark'
import { useLanes } from './lanes-context'
import { movedKeys, useKeyDrag } from './use-key-drag'

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
  /** null where there is nothing between two keys. */
  onCalm: (() => void) | null
}

function KeyMenu({ ease: now, onEase, onDrop, onCalm }: MenuProps) {
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
      {onCalm && (
        <ContextMenu.Item className={item} onSelect={onCalm}>
          Take the jitter out of the row
        </ContextMenu.Item>
      )}
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
  const drag = useKeyDrag(layer, path, event => (fixed ? null : markOf(event)))
  // The path is made anew at each change; its words are what it is.
  const pathText = JSON.stringify(path)
  const chosenText = useStore(s => JSON.stringify(chosenKeys(s.keys, layer)))
  const chosen: readonly edits.KeysAt[] = useMemo(() => JSON.parse(chosenText), [chosenText])
  const own = chosen.find(c => JSON.stringify(c.path) === pathText)?.frames
  /** All that are chosen, where one of them is meant; else that one alone. */
  const meant = useCallback(
    (frame: number): readonly edits.KeysAt[] =>
      own?.includes(frame) ? chosen : [{ path: JSON.parse(pathText), frames: [frame] }],
    [own, chosen, pathText],
  )
  const onGo = useCallback((frame: number) => engine?.goTo(frame), [engine])
  const onDrop = useCallback(
    (frame: number) => void send(edit('dropKeys', layer.id, meant(frame))),
    [send, layer.id, meant],
  )
  const onStep = useCallback(
    (frame: number, by: 1 | -1) => {
      const keys = meant(frame)
      send(editIn(`step ${layer.id} ${pathText}`, 'retimeKeys', layer.id, keys, { about: 0, factor: 1, by }))
      send(keysChosen({ layer: layer.id, keys: movedKeys(keys, f => f + by) }))
    },
    [send, layer.id, pathText, meant],
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
              chosen={own?.includes(k.frame) ?? false}
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
            const step = gesture ?? newId()
            for (const { path, frames } of meant(aimed))
              for (const frame of frames) send(editIn(step, 'easeKey', layer.id, path, frame, ease))
          }}
          onDrop={() => aimed !== null && onDrop(aimed)}
          onCalm={canCalm(value) ? () => void send(edit('calmKeys', layer.id, JSON.parse(pathText))) : null}
        />
      </ContextMenu.Portal>
    </ContextMenu.Root>
  )
})
