// Ten minutes of playing: how far each picture is from the sound that is heard when it shows.
import type { Page } from '@playwright/test'
import { percentile, type Row } from './measure'
import { openChanged } from './stored'

const MINUTES = 10

/** Listens to when sound is started and heard; to be called before the page is loaded. */
export async function listen(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const seen = { context: null as AudioContext | null, start: Number.NaN, errors: [] as number[] }
    Object.assign(window, { seen })
    const start = AudioBufferSourceNode.prototype.start
    AudioBufferSourceNode.prototype.start = function (when, ...rest) {
      if (Number.isNaN(seen.start)) Object.assign(seen, { context: this.context, start: when })
      return start.call(this, when, ...rest)
    }
  })
}

/** Milliseconds that each picture of a playing shot comes after its sound, in the order in which they were shown. */
async function lateness(page: Page, framesPerSecond: number): Promise<number[]> {
  await page.evaluate(rate => {
    const { seen } = window as unknown as { seen: { context: AudioContext | null; start: number; errors: number[] } }
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    new MutationObserver(() => {
      const heard = seen.context?.getOutputTimestamp()
      if (!heard?.contextTime || !heard.performanceTime) return
      const now = heard.contextTime + (performance.now() - heard.performanceTime) / 1000
      seen.errors.push(1000 * (now - seen.start - Number(canvas.dataset.frame) / rate))
    }).observe(canvas, { attributes: true, attributeFilter: ['data-frame'] })
  }, framesPerSecond)
  await page.keyboard.press('Home')
  await page.waitForTimeout(1500)
  await page.evaluate(() => {
    ;(window as unknown as { seen: { errors: number[] } }).seen.errors = []
  })
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.waitForTimeout(MINUTES * 60_000)
  return page.evaluate(() => (window as unknown as { seen: { errors: number[] } }).seen.errors)
}

export async function inStepRows(page: Page, origin: string): Promise<Row[]> {
  let framesPerSecond = 0
  await openChanged(page, origin, 'in-step', shot => {
    framesPerSecond = shot.rate.num / shot.rate.den
    shot.length = Math.round(framesPerSecond * 60 * (MINUTES + 1))
    for (const layer of shot.layers) {
      const seconds = (layer.span.to - layer.span.from) / framesPerSecond
      layer.span = { ...layer.span, to: shot.length }
      layer.timing = { kind: 'loop', from: 0, to: seconds, style: 'cut', over: 0, speed: 1, begun: 0 }
    }
  })
  await page.waitForTimeout(3000)
  const errors = await lateness(page, framesPerSecond)
  const minute = Math.floor(errors.length / MINUTES)
  const medians = Array.from({ length: MINUTES }, (_, i) => percentile(errors.slice(i * minute, (i + 1) * minute), 0.5))
  const worst = Math.max(...medians.map(Math.abs))
  const within = errors.filter(e => Math.abs(e) <= 20).length / errors.length
  return [
    {
      what: 'playing for ten minutes: picture against the sound that is heard',
      goal: '95% within 20 ms',
      measured: `${worst.toFixed(1)} ms off at most (median of a minute; first ${medians[0]!.toFixed(1)}, last ${medians.at(-1)!.toFixed(1)}); ${(100 * within).toFixed(1)}% of ${errors.length} pictures within 20 ms`,
      value: within,
      met: within >= 0.95 && worst <= 20,
    },
  ]
}
