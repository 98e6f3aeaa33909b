import type { LucideIcon } from 'lucide-react'
import type { ComponentProps } from 'react'
import { Tip } from './Tip'

type Props = Omit<ComponentProps<'button'>, 'children'> & {
  icon: LucideIcon
  label: string
  keys?: string
  size?: 'tiny' | 'small' | 'normal' | 'large'
  /** For buttons that stay pressed. */
  pressed?: boolean
}

const SIZES = { tiny: 'size-5', small: 'size-6', normal: 'size-8', large: 'size-9' }

/** A round button of one picture; its label is a tip and what is read aloud. */
export function IconButton({ icon: Icon, label, keys, size = 'normal', pressed, className = '', ...rest }: Props) {
  const tone = pressed ? 'bg-ghost text-on-ghost' : 'text-ink hover:bg-raised'
  return (
    <Tip text={label} keys={keys}>
      <button
        type="button"
        aria-label={label}
        aria-pressed={pressed}
        className={`inline-flex shrink-0 items-center justify-center rounded-full ${SIZES[size]} ${tone} ${className}`}
        {...rest}
      >
        <Icon size={size === 'tiny' ? 13 : size === 'small' ? 14 : 17} strokeWidth={1.8} />
      </button>
    </Tip>
  )
}

/** A button of words. `main` is the one thing a screen is for. */
export function TextButton({ main = false, className = '', ...rest }: ComponentProps<'button'> & { main?: boolean }) {
  const tone = main ? 'bg-lime text-on-lime font-bold' : 'bg-card text-ink hover:bg-raised'
  return <button type="button" className={`rounded-full px-4 py-1.5 ${tone} ${className}`} {...rest} />
}
