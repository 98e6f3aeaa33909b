import type { Border, Shadow } from '../../core/graphic'
import { newId } from '../../core/shot'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { ColourField } from './ColourField'

interface Props {
  border: Border | null
  shadow: Shadow | null
  /** px that a new line is wide, and a new shadow lies off. */
  usual: number
  disabled: boolean
  onChange: (changes: { border?: Border | null; shadow?: Shadow | null }, gesture: string) => void
}

const LENGTH = { unit: 'px', min: 0, max: 4000, digits: 1, step: 0.5 } as const

/** The line round something and the shadow behind it. */
export function CastFields({ border, shadow, usual, disabled, onChange }: Props) {
  const line = (changes: Partial<Border>, gesture: string) =>
    border && onChange({ border: { ...border, ...changes } }, gesture)
  const cast = (changes: Partial<Shadow>, gesture: string) =>
    shadow && onChange({ shadow: { ...shadow, ...changes } }, gesture)
  const opacity = (value: number, change: (opacity: number, gesture: string) => void) => (
    <NumberField
      label="Opacity"
      unit="%"
      min={0}
      max={100}
      initial={100}
      value={value * 100}
      disabled={disabled}
      onChange={(v, g) => change(v / 100, g)}
    />
  )
  return (
    <>
      <Toggle
        label="Line round it"
        on={border !== null}
        disabled={disabled}
        onChange={on => onChange({ border: on ? { colour: '#1a1815', opacity: 1, width: usual } : null }, newId())}
      />
      {border && (
        <div className="grid grid-cols-2 gap-x-2.5 gap-y-1.5">
          <div className="col-span-2">
            <ColourField
              label="Colour of the line"
              colour={border.colour}
              disabled={disabled}
              onChange={(colour, g) => line({ colour }, g)}
            />
          </div>
          <NumberField
            label="Width"
            {...LENGTH}
            initial={usual}
            value={border.width}
            disabled={disabled}
            onChange={(width, g) => line({ width }, g)}
          />
          {opacity(border.opacity, (o, g) => line({ opacity: o }, g))}
        </div>
      )}
      <Toggle
        label="Shadow"
        on={shadow !== null}
        disabled={disabled}
        onChange={on =>
          onChange(
            { shadow: on ? { colour: '#000000', opacity: 0.6, x: usual, y: usual * 1.5, soft: usual * 3 } : null },
            newId(),
          )
        }
      />
      {shadow && (
        <div className="grid grid-cols-2 gap-x-2.5 gap-y-1.5">
          <div className="col-span-2">
            <ColourField
              label="Colour of the shadow"
              colour={shadow.colour}
              disabled={disabled}
              onChange={(colour, g) => cast({ colour }, g)}
            />
          </div>
          <NumberField
            label="Right by"
            unit="px"
            digits={1}
            initial={usual}
            value={shadow.x}
            disabled={disabled}
            onChange={(x, g) => cast({ x }, g)}
          />
          <NumberField
            label="Down by"
            unit="px"
            digits={1}
            initial={usual}
            value={shadow.y}
            disabled={disabled}
            onChange={(y, g) => cast({ y }, g)}
          />
          <NumberField
            label="Soft"
            {...LENGTH}
            initial={usual * 3}
            value={shadow.soft}
            disabled={disabled}
            onChange={(soft, g) => cast({ soft }, g)}
          />
          {opacity(shadow.opacity, (o, g) => cast({ opacity: o }, g))}
        </div>
      )}
    </>
  )
}
