import { edit, store, useSend, useStore } from '../../app/store'
import { isKeyed, keysOf } from '../../core/keys'
import { getValue, type Layer, type ValuePath, valueAt } from '../../core/shot'
import { Tip } from './Tip'

/** The key mark beside a value: hollow without keys, a ring between them, full on one. */
export function KeyControl({ layer, path, name }: { layer: Layer; path: ValuePath; name: string }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const value = getValue(layer, path)
  const here = useStore(s => value !== null && keysOf(value).some(k => k.frame === s.view.frame))
  if (value === null) return null
  const toggle = () => {
    const { frame } = store.getState().view
    send(
      here
        ? edit('dropKey', layer.id, path, frame)
        : edit('putKey', layer.id, path, frame, valueAt(layer, path, frame)),
    )
  }
  const look = here ? 'bg-ghost border-ghost' : isKeyed(value) ? 'border-ghost border-[2.5px]' : 'border-quiet'
  return (
    <Tip text={here ? `Take the key of ${name} away` : `Set a key for ${name} here`}>
      <button
        type="button"
        aria-label={here ? `Take the key of ${name} away` : `Set a key for ${name}`}
        aria-pressed={here}
        disabled={readOnly}
        onClick={toggle}
        className="flex size-4 shrink-0 items-center justify-center rounded-full"
      >
        <span className={`size-2.5 rounded-full border ${look}`} />
      </button>
    </Tip>
  )
}
