import { editIn, store, useSend, useStore } from '../../app/store'
import { type Numeric, sample } from '../../core/keys'
import { getValue, type Layer, type ValuePath } from '../../core/shot'
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

/** A number of a layer as it is at the playhead, with its key control. */
export function ValueField({ layer, path, label, field, factor = 1, ...number }: Props) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const value = getValue(layer, path)
  // Drawn anew when its number is another one, not with every frame.
  const own = useStore(s => {
    const now = value && sample<Numeric>(value, s.view.frame)
    return typeof now === 'number' || now === null ? now : now[field!]!
  })
  if (value === null || own === null) return null
  const change = (shown: number, gesture: string) => {
    const { frame, keying } = store.getState().view
    const now = sample<Numeric>(value, frame)
    const next = typeof now === 'number' ? shown / factor : { ...now, [field!]: shown / factor }
    send(editIn(gesture, 'setValue', layer.id, path, frame, next, keying))
  }
  return (
    <NumberField label={label} value={own * factor} disabled={readOnly} onChange={change} {...number}>
      <KeyControl layer={layer} path={path} name={label.toLowerCase()} />
    </NumberField>
  )
}
