// The lanes under load: 200 layers with 5,000 keys, dragged, scrolled and zoomed; and from an edit to its picture.
import type { Page } from '@playwright/test'
import { atMost, percentile, type Row } from './measure'
import { openChanged } from './stored'

/** Makes a project of 200 layers, 25 keys each, out of the demo that is open, and opens it. */
async function openCrowd(page: Page, origin: string): Promise<void> {
  await openChanged(page, origin, 'crowd', shot => {
    const [like] = shot.layers
    shot.length = 9200
    shot.layers = Array.from({ length: 200 }, (_, i) => {
      const from = ((i * 37) % 200) * 45
      const keys = Array.from({ length: 25 }, (_, k) => ({
        frame: from + k * 7,
        value: 0.5 + (k % 2) / 2,
        ease: 'linear' as const,
      }))
      return { ...like!, id: `crowd-${i}`, name: `Layer ${i + 1}`, span: { from, to: from + 184 }, opacity: { keys } }
    })
  })
  await page.waitForTimeout(4000)
}

type Gesture = 'drag' | 'scroll' | 'zoom' | 'wait'

/** Milliseconds between pictures of the screen while something is done at each of them. */
function intervals(page: Page, gesture: Gesture): Promise<number[]> {
  return page.evaluate(async what => {
    const region = document.querySelector('section[aria-label=Lanes]')!
    const list = region.querySelector('ol')!
    const scroller = list.parentElement!
    const ruler = document.querySelector('[data-testid=ruler]')!
    const bar = region.querySelector('[data-bar] button')!
    const box = bar.getBoundingClientRect()
    const x0 = Math.max(box.left, ruler.getBoundingClientRect().left) + 3
    const pointer = (type: string, x: number, buttons: number) =>
      bar.dispatchEvent(
        new PointerEvent(type, {
          bubbles: true,
          clientX: x,
          clientY: box.top + 25,
          button: 0,
          buttons,
          pointerId: 1,
          isPrimary: true,
        }),
      )
    // Synthetic pointers cannot be captured.
    Element.prototype.setPointerCapture = () => {}
    if (what === 'drag') pointer('pointerdown', x0, 1)
    const times: number[] = []
    let last = performance.now()
    for (let i = 0; i < 150; i++) {
      const now = await new Promise<number>(resolve => requestAnimationFrame(resolve))
      if (i > 10) times.push(now - last)
      last = now
      if (what === 'drag') pointer('pointermove', x0 + 200 * Math.abs(Math.sin(i / 20)), 1)
      if (what === 'scroll') scroller.scrollTop = 2500 * Math.abs(Math.sin(i / 40))
      if (what === 'zoom') {
        const { left, top } = ruler.getBoundingClientRect()
        const deltaY = i % 75 < 38 ? -60 : 60
        ruler.dispatchEvent(
          new WheelEvent('wheel', { bubbles: true, cancelable: true, deltaY, clientX: left + 300, clientY: top + 8 }),
        )
      }
    }
    if (what === 'drag') pointer('pointerup', x0, 0)
    return times
  }, gesture)
}

/** Milliseconds from a key that changes the document to the new picture on the stage. */
function editTimes(page: Page): Promise<number[]> {
  return page.evaluate(async () => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    const waits: number[] = []
    for (let i = 0; i < 24; i++) {
      const began = performance.now()
      const came = new Promise<void>(resolve => {
        const seen = new MutationObserver(() => {
          seen.disconnect()
          requestAnimationFrame(() => resolve())
        })
        seen.observe(canvas, { attributes: true, attributeFilter: ['data-frame'] })
      })
      const keys = { key: 'H', code: 'KeyH', shiftKey: true, bubbles: true }
      document.body.dispatchEvent(new KeyboardEvent('keydown', keys))
      document.body.dispatchEvent(new KeyboardEvent('keyup', keys))
      await Promise.race([came, new Promise(resolve => setTimeout(resolve, 1000))])
      waits.push(performance.now() - began)
      await new Promise(resolve => setTimeout(resolve, 400))
    }
    return waits
  })
}

const mean = (values: number[]): number => values.reduce((s, v) => s + v, 0) / values.length
export async function laneRows(page: Page, origin: string): Promise<Row[]> {
  await openCrowd(page, origin)
  const idle = 1000 / mean(await intervals(page, 'wait'))
  const rows: Row[] = []
  for (const [gesture, words] of [
    ['drag', 'dragging a bar'],
    ['scroll', 'scrolling the lanes'],
    ['zoom', 'zooming the lanes'],
  ] as const) {
    const times = await intervals(page, gesture)
    const perSecond = 1000 / mean(times)
    rows.push({
      what: `200 layers, 5,000 keys: ${words}`,
      goal: 'at least 50 frames a second',
      measured: `${perSecond.toFixed(1)} a second (idle ${idle.toFixed(1)}; 95th percentile ${percentile(times, 0.95).toFixed(0)} ms)`,
      value: perSecond,
      met: perSecond >= 50,
    })
  }
  const waits = await editTimes(page)
  rows.push(
    atMost(
      '200 layers, 5,000 keys: from an edit to its picture, median',
      50,
      percentile(waits, 0.5),
      'ms',
      `95th percentile ${percentile(waits, 0.95).toFixed(0)} ms`,
    ),
  )
  return rows
}
