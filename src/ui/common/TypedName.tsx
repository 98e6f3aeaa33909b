import { type KeyboardEvent, useState } from 'react'
import { LIMITS } from '../../core/shot'

interface Props {
  label: string
  name: string
  onDone: (name: string) => void
  disabled?: boolean
  className?: string
  size?: number
}

/** A name that is typed in its place: taken as a whole when it is left, or put back with Escape. */
export function TypedName({ label, name, onDone, ...rest }: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const commit = () => {
    const said = typed?.trim()
    if (said && said !== name) onDone(said)
    setTyped(null)
  }
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Enter') event.currentTarget.blur()
    if (event.key === 'Escape') setTyped(null)
  }
  return (
    <input
      aria-label={label}
      maxLength={LIMITS.name}
      value={typed ?? name}
      onChange={event => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={onKeyDown}
      {...rest}
    />
  )
}
