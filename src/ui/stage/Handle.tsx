import type { PointerEvent, ReactNode } from 'react'
import { type Drag, useDrag } from '../common/use-drag'

interface Props<T> {
  label: string
  x: number
  y: number
  /** Discs turn and stretch, squares move and scale, lozenges feather; an area draws itself. */
  form: 'disc' | 'square' | 'lozenge' | 'area'
  cursor: string
  start: (event: PointerEvent) => T | null
  move: (from: T, drag: Drag) => void
  onActive: (active: boolean) => void
  children?: ReactNode
}

const FORMS: Record<Props<unknown>['form'], ReactNode> = {
  disc: <circle r="4.5" />,
  square: <rect x="-4.5" y="-4.5" width="9" height="9" rx="1" />,
  lozenge: <path d="M0-5.5 5.5 0 0 5.5-5.5 0z" />,
  area: null,
}

/** Something to take hold of on the picture: the same size at every zoom, easier to hit than it looks. */
export function Handle<T>({ label, x, y, form, cursor, start, move, onActive, children }: Props<T>) {
  const drag = useDrag<T>({
    start: event => {
      const from = start(event)
      if (from !== null) onActive(true)
      return from
    },
    move,
    end: () => onActive(false),
  })
  return (
    <g
      data-handle={label}
      transform={`translate(${x} ${y})`}
      style={{ cursor }}
      className="pointer-events-auto touch-none"
      fill="#141414"
      stroke="#a9ecd9"
      strokeWidth="1.8"
      {...drag}
    >
      <title>{label}</title>
      {form === 'area' ? children : <circle r="13" fill="transparent" stroke="none" />}
      <g stroke="#000" strokeOpacity="0.55" strokeWidth="4.5" fill="none">
        {FORMS[form]}
      </g>
      {FORMS[form]}
    </g>
  )
}
