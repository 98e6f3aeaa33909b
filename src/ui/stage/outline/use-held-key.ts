import { useEffect, useState } from 'react'

/** Whether a key without modifiers is held, anywhere but where somebody types. */
export function useHeldKey(key: string): boolean {
  const [held, setHeld] = useState(false)
  useEffect(() => {
    const down = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== key || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return
      if ((event.target as HTMLElement).closest('input, textarea, [role=menu], [role=dialog]')) return
      setHeld(true)
    }
    const up = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === key) setHeld(false)
    }
    const left = () => setHeld(false)
    addEventListener('keydown', down)
    addEventListener('keyup', up)
    addEventListener('blur', left)
    return () => {
      removeEventListener('keydown', down)
      removeEventListener('keyup', up)
      removeEventListener('blur', left)
    }
  }, [key])
  return held
}
