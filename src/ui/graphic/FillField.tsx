import { Minus, Plus } from 'lucide-react'
import { type Fill, type Gradient, STOPS, type Stop } from '../../core/graphic'
import { newId } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Choice } from '../common/Choice'
import { NumberField } from '../common/NumberField'
import { ColourField } from './ColourField'

interface Props {
  fill: Fill | null
  /** What it is laid out over, in px of the layer: where a new gradient goes from and to. */
  over: { left: number; top: number; width: number; height: number }
  /** Whether there may be none. */
  canBeNone: boolean
  disabled: boolean
  onChange: (fill: Fill | null, gesture: string) => void
}

type Kind = 'none' | 'plain' | 'gradient'

/** A fill of another kind that keeps what both know. */
function fillOf(kind: Kind, from: Fill | null, { left, top, width, height }: Props['over']): Fill | null {
  if (kind === 'none') return null
  const colour = from?.kind === 'plain' ? from.colour : (from?.stops[0]?.colour ?? '#f4efe6')
  if (kind === 'plain') return { kind, colour }
  const x = Math.round(left + width / 2)
  const [from_, to] = [
    { x, y: Math.round(top) },
    { x, y: Math.round(top + height) },
  ]
  const stops = [
    { at: 0, colour, opacity: 1 },
    { at: 1, colour, opacity: 0 },
  ]
  return { kind, form: 'straight', from: from_, to, stops }
}

const percent = { unit: '%', min: 0, max: 100 } as const

function StopRow({
  stop,
  index,
  disabled,
  onChange,
  onRemove,
}: {
  stop: Stop
  index: number
  disabled: boolean
  onChange: (stop: Stop, gesture: string) => void
  onRemove: (() => void) | null
}) {
  const name = `Colour ${index + 1}`
  return (
    <li className="grid grid-cols-2 gap-x-2.5 gap-y-1 rounded-lg bg-panel p-1.5">
      <div className="col-span-2 flex items-center gap-1">
        <div className="min-w-0 flex-1">
          <ColourField
            label={name}
            colour={stop.colour}
            disabled={disabled}
            onChange={(colour, g) => onChange({ ...stop, colour }, g)}
          />
        </div>
        <IconButton
          icon={Minus}
          size="tiny"
          label={`Take ${name.toLowerCase()} away`}
          disabled={disabled || !onRemove}
          onClick={() => onRemove?.()}
        />
      </div>
      <NumberField
        label="Lies at"
        value={stop.at * 100}
        initial={index === 0 ? 0 : 100}
        disabled={disabled}
        {...percent}
        onChange={(at, g) => onChange({ ...stop, at: at / 100 }, g)}
      />
      <NumberField
        label="Opacity"
        value={stop.opacity * 100}
        initial={100}
        disabled={disabled}
        {...percent}
        onChange={(opacity, g) => onChange({ ...stop, opacity: opacity / 100 }, g)}
      />
    </li>
  )
}

function GradientFields({ fill, disabled, onChange }: Props & { fill: Gradient }) {
  const { form, stops } = fill
  const replace = (index: number, stop: Stop) => stops.map((s, i) => (i === index ? stop : s))
  const add = () => {
    const [before, last] = [stops.at(-2)!, stops.at(-1)!]
    const between = { ...before, at: Math.round((before.at + last.at) * 50) / 100 }
    onChange({ ...fill, stops: [...stops.slice(0, -1), between, last] }, newId())
  }
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <Choice
          label="Form of the gradient"
          value={form}
          disabled={disabled}
          options={[
            { value: 'straight', name: 'straight' },
            { value: 'round', name: 'round' },
          ]}
          onChange={next => onChange({ ...fill, form: next }, newId())}
        />
        <IconButton
          icon={Plus}
          size="small"
          label="Add a colour"
          disabled={disabled || stops.length >= STOPS}
          onClick={add}
        />
      </div>
      <ul className="flex flex-col gap-1">
        {stops.map((stop, index) => (
          <StopRow
            // biome-ignore lint/suspicious/noArrayIndexKey: a colour is known by its place in the list
            key={index}
            stop={stop}
            index={index}
            disabled={disabled}
            onChange={(changed, g) => onChange({ ...fill, stops: replace(index, changed) }, g)}
            onRemove={
              stops.length > 2 ? () => onChange({ ...fill, stops: stops.filter((_, i) => i !== index) }, newId()) : null
            }
          />
        ))}
      </ul>
      <p className="text-xs text-quiet">On the picture two marks say where it goes from and to.</p>
    </>
  )
}

/** What something is filled with: nothing, one colour, or colours that go over into each other. */
export function FillField(props: Props) {
  const { fill, over, canBeNone, disabled, onChange } = props
  const kinds: readonly Kind[] = canBeNone ? ['none', 'plain', 'gradient'] : ['plain', 'gradient']
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex items-center justify-between gap-2">
        <h4 className="text-xs font-bold">Fill</h4>
        <Choice
          label="Fill"
          value={fill?.kind ?? 'none'}
          disabled={disabled}
          options={kinds.map(value => ({ value, name: value }))}
          onChange={kind => onChange(fillOf(kind, fill, over), newId())}
        />
      </div>
      {fill?.kind === 'plain' && (
        <ColourField
          label="Colour"
          colour={fill.colour}
          disabled={disabled}
          onChange={(colour, g) => onChange({ ...fill, colour }, g)}
        />
      )}
      {fill?.kind === 'gradient' && <GradientFields {...props} fill={fill} />}
    </div>
  )
}
