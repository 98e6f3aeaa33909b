// How commands say a sentence to the person: whoever shows the screen listens.
type Listener = (sentence: string) => void

let listener: Listener = () => {}

export const say = (sentence: string): void => listener(sentence)

/** Tells who shows the sentences. */
export function onSaying(to: Listener): void {
  listener = to
}
