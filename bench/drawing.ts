// How a picture follows a hand that drags a point of an outline.
import type { Page } from '@playwright/test'
import type { Row } from './measure'

/** Pictures a second that reach the stage while a point is dragged to and fro. */
async function dragging(page: Page): Promise<number> {
  const box = (await page.locator('[data-testid=outline]').first().boundingBox())!
  const point = await page.evaluate(() => {
    const d = document.querySelector('[data-testid=outline]')!.getAttribute('d')!
    const [, x, y] = /^M([\d.]+) ([\d.]+)/.exec(d)!
    const svg = document.querySelector('[data-testid=outline]')!.closest('svg')!.getBoundingClientRect()
    return { x: svg.left + Number(x), y: svg.top + Number(y) }
  })
  if (box.width < 10) throw new Error('there is no outline to drag')
  await page.evaluate(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    const count = { pictures: 0 }
    Object.assign(window, { count })
    new MutationObserver(list => {
      count.pictures += list.filter(m => m.attributeName === 'data-frame').length
    }).observe(canvas, { attributes: true, attributeFilter: ['data-frame'] })
  })
  await page.mouse.move(point.x, point.y)
  await page.mouse.down()
  const began = Date.now()
  for (let i = 0; i < 240; i++) await page.mouse.move(point.x + 30 * Math.sin(i / 12), point.y + 20 * Math.cos(i / 15))
  const seconds = (Date.now() - began) / 1000
  const pictures = await page.evaluate(() => (window as unknown as { count: { pictures: number } }).count.pictures)
  await page.mouse.up()
  return pictures / seconds
}

export async function drawingRows(page: Page, origin: string): Promise<Row[]> {
  await page.goto(`${origin}/`)
  await page.getByRole('button', { name: 'Open Open late' }).click()
  await page.waitForSelector('main[data-ready=true]')
  await page.getByTestId('ruler').focus()
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowRight')
  // As whoever draws has it.
  await page.keyboard.press('Shift+K')
  await page.waitForTimeout(1500)
  const rate = await dragging(page)
  return [
    {
      what: 'dragging a point of an outline over three 720p layers, the picture live',
      goal: 'at least 30 pictures a second',
      measured: `${rate.toFixed(0)} a second`,
      value: rate,
      met: rate >= 30,
    },
  ]
}
