import { Switch } from 'radix-ui'

/** A pill that is on or off, with its word beside it. */
export function Toggle({
  label,
  on,
  onChange,
  disabled,
}: {
  label: string
  on: boolean
  onChange: (on: boolean) => void
  disabled?: boolean
}) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the switch inside is the control
    <label className="flex items-center justify-between gap-2 text-xs text-quiet">
      {label}
      <Switch.Root
        checked={on}
        disabled={disabled}
        aria-label={label}
        onCheckedChange={onChange}
        className="relative h-4 w-7 shrink-0 rounded-full bg-ground transition-colors data-[state=checked]:bg-ghost"
      >
        <Switch.Thumb className="block size-3 translate-x-0.5 rounded-full bg-quiet transition-transform data-[state=checked]:translate-x-3.5 data-[state=checked]:bg-on-ghost" />
      </Switch.Root>
    </label>
  )
}
