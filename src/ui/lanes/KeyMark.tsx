import { ContextMenu } from 'radix-ui'
import { edit, editIn, useSend, useStore } from '../../app/store'
import type { Ease, Key, Numeric } from '../../core/keys'
import type { Layer, ValuePath } from '../../core/shot'
import { useEngine } from '../stage/engine-context'
import type { TimeScale } from './time-scale'

const EASES: readonly [Ease, string][] = [
  ['linear', 'Linear'],
  ['smooth', 'Smooth'],
  ['hold', 'Hold'],
]

/** The mark's form tells how the value leaves it: triangle linear, disc smooth, square hold. */
function Form({ ease }: { ease: Ease }) {
  if (ease === 'linear') return <path d="M0-5.5 5.2 4.5H-5.2z" />
  if (ease === 'hold') return <rect x="-4.5" y="-4.5" width="9" height="9" />
  return <circle r="5" />
}

interface Props {
  layer: Layer
  path: ValuePath
  name: string
  keyed: Key<Numeric>
  scale: TimeScale
}

const item = 'cursor-default rounded-lg px-2.5 py-1 outline-none data-[highlighted]:bg-raised'

/** A key in its lane: stepped and deleted by keyboard, its ease in its menu; its row drags it. */
export function KeyMark({ layer, path, name, keyed, scale }: Props) {
  const send = useSend()
  const engine = useEngine()
  const here = useStore(s => s.view.frame === keyed.frame)
  const readOnly = useStore(s => s.view.readOnly)
  const drop = () => send(edit('dropKey', layer.id, path, keyed.frame))
  return (
    <ContextMenu.Root>
      <ContextMenu.Trigger asChild disabled={readOnly}>
        <button
          type="button"
          aria-label={`Key of ${name} at frame ${keyed.frame + 1}, ${keyed.ease}`}
          className={`absolute top-0 flex h-5 w-5 -translate-x-1/2 items-center justify-center ${here ? 'text-lime' : 'text-ghost'}`}
          style={{ left: scale.x(keyed.frame) }}
          data-key={keyed.frame}
          // By hand the row sees to it, since a mark that is dragged is made anew at each frame.
          onClick={event => event.detail === 0 && engine?.goTo(keyed.frame)}
          onKeyDown={event => {
            if (event.key === 'Delete' || event.key === 'Backspace') {
              // The same key would delete the layer.
              event.stopPropagation()
              drop()
            }
            if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return
            event.stopPropagation()
            const to = keyed.frame + (event.key === 'ArrowRight' ? 1 : -1)
            send(editIn(`step ${layer.id} ${name}`, 'slideKey', layer.id, path, keyed.frame, to))
          }}
        >
          <svg viewBox="-8 -8 16 16" width="16" height="16" fill="currentColor" aria-hidden="true">
            <Form ease={keyed.ease} />
          </svg>
        </button>
      </ContextMenu.Trigger>
      <ContextMenu.Portal>
        <ContextMenu.Content className="z-40 min-w-36 rounded-xl border border-line bg-card p-1 shadow-xl shadow-black/50">
          {EASES.map(([ease, word]) => (
            <ContextMenu.Item
              key={ease}
              className={item}
              onSelect={() => send(edit('easeKey', layer.id, path, keyed.frame, ease))}
            >
              <span className="inline-flex items-center gap-2">
                <svg
                  viewBox="-8 -8 16 16"
                  width="14"
                  height="14"
                  fill="currentColor"
                  className="text-ghost"
                  aria-hidden="true"
                >
                  <Form ease={ease} />
                </svg>
                {word}
                {ease === keyed.ease && <span className="text-quiet">now</span>}
              </span>
            </ContextMenu.Item>
          ))}
          <ContextMenu.Separator className="my-1 h-px bg-line" />
          <ContextMenu.Item className={item} onSelect={drop}>
            Delete the key
          </ContextMenu.Item>
        </ContextMenu.Content>
      </ContextMenu.Portal>
    </ContextMenu.Root>
  )
}
