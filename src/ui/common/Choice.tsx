import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'

interface Props<T extends string> {
  label: string
  value: T
  options: readonly { value: T; name: string; icon?: ReactNode }[]
  onChange: (value: T) => void
  disabled?: boolean
}

/** One of a few, side by side. Options with an icon show only that. */
export function Choice<T extends string>({ label, value, options, onChange, disabled }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      disabled={disabled}
      aria-label={label}
      onValueChange={chosen => chosen && onChange(chosen as T)}
      className="inline-flex rounded-full bg-ground p-0.5 text-xs"
    >
      {options.map(o => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          aria-label={o.name}
          title={o.icon ? o.name : undefined}
          className="rounded-full px-2.5 py-0.5 whitespace-nowrap text-quiet hover:text-ink data-[state=on]:bg-raised data-[state=on]:text-ink"
        >
          {o.icon ?? o.name}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}
