// How a picture follows a hand that drags a point of an outline.
import type { Page } from '@playwright/test'
import type { Row } from './measure'

/** Pictures that reach the stage, and pictures of the screen, a second, while a point is dragged to and fro. */
const dragging = (page: Page): Promise<{ pictures: number; screen: number }> =>
  page.evaluate(async () => {
    const line = document.querySelector('[data-testid=outline]')!
    const ground = document.querySelector('[data-testid=outline-ground]')!
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    const { left, top } = line.closest('svg')!.getBoundingClientRect()
    const [, x, y] = /^M([\d.]+) ([\d.]+)/.exec(line.getAttribute('d')!)!
    const pointer = (type: string, dx: number, dy: number, buttons: number) =>
      ground.dispatchEvent(
        new PointerEvent(type, {
          bubbles: true,
          clientX: left + Number(x) + dx,
          clientY: top + Number(y) + dy,
          button: 0,
          buttons,
          pointerId: 1,
          isPrimary: true,
        }),
      )
    // Synthetic pointers cannot be captured.
    Element.prototype.setPointerCapture = () => {}
    let pictures = 0
    const seen = new MutationObserver(list => {
      pictures += list.length
    })
    seen.observe(canvas, { attributes: true, attributeFilter: ['data-frame'] })
    pointer('pointermove', 0, 0, 0)
    pointer('pointerdown', 0, 0, 1)
    const began = performance.now()
    let frames = 0
    while (performance.now() - began < 6000) {
      await new Promise(requestAnimationFrame)
      pointer('pointermove', 30 * Math.sin(frames / 12), 20 * Math.cos(frames / 15), 1)
      frames++
    }
    const seconds = (performance.now() - began) / 1000
    seen.disconnect()
    pointer('pointerup', 0, 0, 0)
    return { pictures: pictures / seconds, screen: frames / seconds }
  })

export async function drawingRows(page: Page, origin: string): Promise<Row[]> {
  await page.goto(`${origin}/`)
  await page.getByRole('link', { name: 'Open Open late' }).click()
  await page.waitForSelector('main[data-ready=true]')
  await page.getByTestId('ruler').focus()
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowRight')
  // As whoever draws has it; small frames and loudness are made before.
  await page.keyboard.press('Shift+K')
  await page.waitForTimeout(15_000)
  const { pictures, screen } = await dragging(page)
  return [
    {
      what: 'dragging a point of an outline over three 720p layers, the picture live',
      goal: 'at least 30 pictures a second',
      measured: `${pictures.toFixed(0)} a second (the line itself ${screen.toFixed(0)})`,
      value: pictures,
      met: pictures >= 30,
    },
  ]
}
