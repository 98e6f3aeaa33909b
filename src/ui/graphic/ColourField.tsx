import { useId, useRef, useState } from 'react'
import { newId } from '../../core/shot'

interface Props {
  label: string
  /** `#rrggbb` */
  colour: string
  disabled?: boolean
  onChange: (colour: string, gesture: string) => void
}

const COLOUR = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i

/** A colour as it was typed, in full; null where it is none. */
function asColour(typed: string): string | null {
  const [, digits] = COLOUR.exec(typed.trim()) ?? []
  if (!digits) return null
  const full = digits.length === 3 ? [...digits].map(d => d + d).join('') : digits
  return `#${full.toLowerCase()}`
}

/** A colour that can be picked or typed. */
export function ColourField({ label, colour, disabled, onChange }: Props) {
  const id = useId()
  const [typed, setTyped] = useState<string | null>(null)
  // All that is tried while the picker is open is one step of the history.
  const gesture = useRef('')
  const commit = () => {
    const now = typed === null ? null : asColour(typed)
    if (now && now !== colour) onChange(now, newId())
    setTyped(null)
  }
  return (
    <div className="flex min-w-0 items-center gap-1.5 text-xs">
      <label htmlFor={id} className="min-w-0 flex-1 truncate text-quiet">
        {label}
      </label>
      <input
        type="color"
        aria-label={`${label}: pick`}
        value={colour}
        disabled={disabled}
        onFocus={() => {
          gesture.current = newId()
        }}
        onChange={event => onChange(event.target.value, gesture.current || newId())}
        className="size-5 shrink-0 cursor-pointer appearance-none rounded-md border border-line bg-transparent p-0 [&::-webkit-color-swatch]:rounded-[5px] [&::-webkit-color-swatch]:border-0 [&::-webkit-color-swatch-wrapper]:p-0"
      />
      <input
        id={id}
        disabled={disabled}
        spellCheck={false}
        className="w-[62px] rounded-md bg-ground px-1 py-1 font-mono text-[11px] outline-none focus:outline-2 focus:outline-lime"
        value={typed ?? colour}
        onFocus={event => event.target.select()}
        onChange={event => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={event => {
          if (event.key === 'Enter') event.currentTarget.blur()
          if (event.key === 'Escape') setTyped(null)
        }}
      />
    </div>
  )
}
