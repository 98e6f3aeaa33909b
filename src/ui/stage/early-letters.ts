// What somebody types on the picture before the sheet that takes it is there: its font may have to come first.
import { useEffect } from 'react'

let letters = ''

const isField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea') !== null

/** Listens for as long as letters are typed, to all that goes into no field. */
export function useEarlyLetters(isTyping: boolean): void {
  useEffect(() => {
    if (!isTyping) return
    letters = ''
    const hear = ({ key, ctrlKey, metaKey, altKey, target }: KeyboardEvent) => {
      if (ctrlKey || metaKey || altKey || isField(target)) return
      if (key === 'Backspace') letters = letters.slice(0, -1)
      else if (key === 'Enter') letters += '\n'
      else if (key.length === 1) letters += key
    }
    addEventListener('keydown', hear, true)
    return () => removeEventListener('keydown', hear, true)
  }, [isTyping])
}

/** What was typed so far, once. */
export function takeEarlyLetters(): string {
  const taken = letters
  letters = ''
  return taken
}
