// Colours that go over into each other, over the whole frame.
import type { Gradient, Stop } from '../graphic'
import type { Kernels } from '../render/kernels'
import { floatReads, word } from '../render/rows'
import type { PictureKind } from './kind'

/** In px of the output. */
export type GradientPicture = Gradient

/** Steps of a gradient's table, besides its first entry. */
const STEPS = 1024

/** The colour of a stop in linear light, not premultiplied, and how much of it there is. */
function lightOf(k: Kernels, { colour, opacity }: Stop): number[] {
  return k.scope(() => {
    const code = k.alloc(4)
    const linear = k.alloc(16)
    k.ints(code, 1)[0] = word(colour)
    k.toLinear(code, linear, 1)
    return [...k.floats(linear, 3), opacity]
  })
}

/**
 * Premultiplied linear colours along a gradient. Mixed as square roots of light: evenly to the eye, and by nothing that engines
 * round differently.
 */
function gradientTable(k: Kernels, stops: readonly Stop[], out: Float32Array): void {
  const sorted = [...stops].sort((a, b) => a.at - b.at).map(stop => ({ at: stop.at, light: lightOf(k, stop) }))
  let next = 0
  for (let i = 0; i <= STEPS; i++) {
    const t = i / STEPS
    while (next < sorted.length && sorted[next]!.at <= t) next++
    const one = sorted[Math.max(0, next - 1)]!
    const other = sorted[Math.min(sorted.length - 1, next)]!
    const span = other.at - one.at
    const share = span > 0 ? Math.max(0, Math.min(1, (t - one.at) / span)) : 0
    const [a, b] = [one.light[3]! * (1 - share), other.light[3]! * share]
    const alpha = a + b
    for (let c = 0; c < 3; c++) {
      // Each colour counts as much as there is of it, so that none fades by way of black.
      const root = alpha > 0 ? (Math.sqrt(one.light[c]!) * a + Math.sqrt(other.light[c]!) * b) / alpha : 0
      out[i * 4 + c] = root * root * alpha
    }
    out[i * 4 + 3] = alpha
  }
}

export const GRADIENT: PictureKind<GradientPicture> = {
  needs: () => [],
  rows(k, { form, from, to, stops }, { size }) {
    const table = k.alloc((STEPS + 1) * 16)
    gradientTable(k, stops, k.floats(table, (STEPS + 1) * 4))
    const row = k.alloc(size.width * 16)
    const round = form === 'round' ? 1 : 0
    let opened = -1
    return {
      ...size,
      opaque: stops.every(({ opacity }) => opacity === 1),
      open(y) {
        if (opened === y) return
        opened = y
        k.gradientRow(row, size.width, 0, y, from.x, from.y, to.x, to.y, round, table)
      },
      ...floatReads(k, () => row),
    }
  },
}
