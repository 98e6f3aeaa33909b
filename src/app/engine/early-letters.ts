// What somebody types on the picture before the sheet that takes it is there: its font may have to come first.

let letters = ''

const isField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('input, textarea') !== null

/** Listens to all that goes into no field; returns how to stop. What was heard stays until it is taken, or listened for anew. */
export function hearEarlyLetters(): () => void {
  letters = ''
  const hear = ({ key, ctrlKey, metaKey, altKey, target }: KeyboardEvent) => {
    if (ctrlKey || metaKey || altKey || isField(target)) return
    if (key === 'Backspace') letters = letters.slice(0, -1)
    else if (key === 'Enter') letters += '\n'
    else if (key.length === 1) letters += key
  }
  addEventListener('keydown', hear, true)
  return () => removeEventListener('keydown', hear, true)
}

/** What was typed so far, once. */
export function takeEarlyLetters(): string {
  const taken = letters
  letters = ''
  return taken
}
