// A take as it is seen when somebody looks through it.
import type { Seen } from '../core/plate'

/** A hundred frames, told one by one; what nothing is said of is as in a quiet take in which nobody is. */
export const seenTake = (of: (frame: number) => Partial<Seen> & { x?: number; y?: number; light?: number }): Seen[] =>
  Array.from({ length: 100 }, (_, i) => {
    const { x = 0, y = 0, light = 1, ...more } = of(i)
    const wobble = 0.01 * Math.sin(i * 7)
    const gain = [light, light, light] as const
    const usual = { share: 0, unsure: 0, shade: 0, sharp: 1, dark: 0, bright: 0, where: null, gain }
    const movement = { x: x + wobble, y: y - wobble, turn: 0, scale: 1 }
    return { ...usual, veiled: { gain, offset: 0 }, movement, ...more }
  })
