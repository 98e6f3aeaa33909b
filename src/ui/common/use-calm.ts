import { useEffect, useReducer, useRef } from 'react'
import { useStore } from '../../app/store'

/** Milliseconds between two looks at what changes under a hand. */
const PACE = 200

/** A value as it is; while a hand works on the picture only now and then, so that panels leave the time to the hand. */
export function useCalm<T>(value: T): T {
  const handling = useStore(s => s.view.handling)
  const latest = useRef(value)
  latest.current = value
  const shown = useRef(value)
  if (!handling) shown.current = value
  const [, look] = useReducer((looks: number) => looks + 1, 0)
  useEffect(() => {
    if (!handling) return
    const timer = setInterval(() => {
      if (shown.current === latest.current) return
      shown.current = latest.current
      look()
    }, PACE)
    return () => clearInterval(timer)
  }, [handling])
  return shown.current
}
