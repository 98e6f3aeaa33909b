import { type KeyboardEvent, type ReactNode, useId, useRef, useState } from 'react'
import { newId } from '../../core/shot'
import { useDrag } from './use-drag'

interface Props {
  label: string
  value: number
  unit?: string
  min?: number
  max?: number
  /** What one arrow key, or one px of dragging, changes. */
  step?: number
  digits?: number
  /** What a double click on the label sets back to. */
  initial: number
  disabled?: boolean
  onChange: (value: number, gesture: string) => void
  /** Stands after the number: its key control. */
  children?: ReactNode
}

/** A number that can be typed, dragged by its label, stepped with arrows, and set back. */
export function NumberField(props: Props) {
  const {
    label,
    value,
    unit = '',
    min = -1e6,
    max = 1e6,
    step = 1,
    digits = 0,
    initial,
    disabled,
    onChange,
    children,
  } = props
  const id = useId()
  const [typed, setTyped] = useState<string | null>(null)
  // Arrow keys in one go are one step of the history.
  const stepping = useRef<{ gesture: string; at: number }>({ gesture: '', at: 0 })
  const within = (v: number) => Math.max(min, Math.min(max, Number(v.toFixed(digits))))
  const commit = () => {
    // An emptied field says nothing: the number stays.
    const number = typed?.trim() ? Number(typed.replace(',', '.')) : Number.NaN
    if (Number.isFinite(number)) onChange(within(number), newId())
    setTyped(null)
  }
  const drag = useDrag<number>({
    start: () => (disabled ? null : value),
    move: (from, { dx, gesture, shift }) => onChange(within(from + dx * step * (shift ? 10 : 1)), gesture),
  })
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    // The keys belong to the workbench again once the number is taken, which leaving does.
    if (event.key === 'Enter') event.currentTarget.blur()
    else if (event.key === 'Escape') setTyped(null)
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      event.preventDefault()
      const now = performance.now()
      if (now - stepping.current.at > 800) stepping.current.gesture = newId()
      stepping.current.at = now
      const by = (event.key === 'ArrowUp' ? 1 : -1) * step * (event.shiftKey ? 10 : 1)
      setTyped(null)
      onChange(within(value + by), stepping.current.gesture)
    }
  }
  return (
    <div className="flex min-w-0 items-center gap-1 text-xs">
      <label
        htmlFor={id}
        className="min-w-0 flex-1 tracking-tight cursor-ew-resize touch-none truncate text-quiet"
        title={`Drag to change, double-click for ${initial}${unit}`}
        onDoubleClick={() => !disabled && onChange(initial, newId())}
        {...drag}
      >
        {label}
      </label>
      <span className="flex w-[47px] shrink-0 items-baseline rounded-md bg-ground px-1 py-1 focus-within:outline-2 focus-within:outline-lime">
        <input
          id={id}
          inputMode="decimal"
          disabled={disabled}
          className="w-0 min-w-0 flex-1 bg-transparent text-right outline-none"
          value={typed ?? String(Number(value.toFixed(digits)))}
          onFocus={event => event.target.select()}
          onChange={event => setTyped(event.target.value)}
          onBlur={commit}
          onKeyDown={onKeyDown}
        />
        {unit && <span className="ml-0.5 text-quiet">{unit}</span>}
      </span>
      {children}
    </div>
  )
}
