import { editIn, store, useSend, useStore } from '../../app/store'
import { type Layer, type ValuePath, valueAt } from '../../core/shot'
import { KeyControl } from '../common/KeyControl'
import { NumberField } from '../common/NumberField'

interface Props {
  layer: Layer
  path: ValuePath
  label: string
  /** One number of a value that is a record, such as the angle of a line. */
  field?: string
  /** The shown number is the stored one times this. */
  factor?: number
  unit?: string
  min?: number
  max?: number
  step?: number
  digits?: number
  initial: number
}

/** What a field shows one number of. */
type Numeric = number | Readonly<Record<string, number>> | null

/** A number of a layer as it is at the playhead, with its key control. */
export function ValueField({ layer, path, label, field, factor = 1, ...number }: Props) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  // Drawn anew when its number is another one, not with every frame.
  const own = useStore(s => {
    const now = valueAt(layer, path, s.view.frame) as Numeric
    return typeof now === 'number' || now === null ? now : now[field!]!
  })
  if (own === null) return null
  const change = (shown: number, gesture: string) => {
    const { frame, keying } = store.getState().view
    const now = valueAt(layer, path, frame) as Numeric
    const next = typeof now !== 'object' ? shown / factor : { ...now, [field!]: shown / factor }
    send(editIn(gesture, 'setValue', layer.id, path, frame, next, keying))
  }
  return (
    <NumberField label={label} value={own * factor} disabled={readOnly} onChange={change} {...number}>
      <KeyControl layer={layer} path={path} name={label.toLowerCase()} />
    </NumberField>
  )
}
