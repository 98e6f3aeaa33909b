// How commands say a sentence to the person: whoever shows the screen listens.
type Listener = (sentence: string, isProblem: boolean) => void

let listener: Listener = () => {}

/** Says what went wrong, or why something was not done. */
export const say = (sentence: string): void => listener(sentence, true)

/** Says what was done, where that is not to be seen. */
export const tell = (sentence: string): void => listener(sentence, false)

/** Tells who shows the sentences. */
export function onSaying(to: Listener): void {
  listener = to
}
