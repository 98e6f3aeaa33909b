// Somebody cut out by their plate, as a hand does it: two touches, then lettering behind them.
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder } from './fixtures/files'
import { terminalFrame } from './fixtures/terminal'
import {
  frameNumber,
  goTo,
  look,
  makeNoMore,
  openDemo,
  pixelAt,
  saved,
  savedFrame,
  settled,
  type,
  unlike,
} from './fixtures/workbench'

test('the clockmaker is cut out by his plate, shadow and all, and corrected by strokes, the same on the stage and in a terminal', async ({
  page,
}) => {
  await openDemo(page)
  await goTo(page, 75)
  const before = await savedFrame(page)
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 250, y: 30 } })
  await page.keyboard.press('Shift+q')
  await expect(page.getByRole('button', { name: /^Plate cut-out/ })).toContainText('against empty-shop.mp4')
  await makeNoMore(page)
  await settled(page)
  const cut = await savedFrame(page)
  // Of him nothing is lost, and of the shadow on the wall beside him next to nothing.
  for (const [x, y] of [
    [440, 240],
    [430, 430],
    [280, 440],
  ] as const) {
    const now = pixelAt(cut, x, y)
    expect(Math.max(...pixelAt(before, x, y).map((v, c) => Math.abs(v - now[c]!)))).toBeLessThan(9)
  }
  await type(page, 'Shadow', 0)
  const shadowless = await savedFrame(page)
  const sum = (of: number[]) => of.reduce((all, v) => all + v, 0)
  expect(sum(pixelAt(shadowless, 280, 440))).toBeGreaterThan(sum(pixelAt(cut, 280, 440)) * 1.15)

  // Strokes correct this frame, and the terminal has them, too.
  await page.keyboard.press('z')
  const paint = page.getByTestId('paint')
  await settled(page)
  const area = (await page.getByTestId('picture').boundingBox())!
  const at = (x: number, y: number) => [area.x + (x / 1280) * area.width, area.y + (y / 720) * area.height] as const
  const stroke = async (from: readonly [number, number], to: readonly [number, number]) => {
    await page.mouse.move(...at(...from))
    await page.mouse.down()
    await page.mouse.move(...at(...to), { steps: 6 })
    await page.mouse.up()
  }
  await expect(paint).toBeVisible()
  await stroke([400, 450], [450, 450])
  await page.keyboard.press('p')
  await stroke([900, 120], [960, 120])
  await expect(page.getByText('2 strokes, 2 on this frame')).toBeVisible()
  await page.keyboard.press('p')
  await expect(paint).toBeHidden()
  const matte = await look(page, 'Matte')
  expect([pixelAt(matte, 425, 450)[0], pixelAt(matte, 930, 120)[0]]).toEqual([0, 255])
  expect(pixelAt(matte, 430, 400)[0]).toBe(255)
  await look(page, 'Picture')
  await saved(page)
  const frame = await savedFrame(page)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const path = join(folder(), 'painted.ghost')
  await (await download).saveAs(path)
  expect(unlike(frame, await terminalFrame(path, 75))).toBe(0)
  // What is far from the painted frame is as it was, and a stroke can be taken away.
  await page.getByRole('button', { name: 'Take these away' }).click()
  await expect(page.getByText(/strokes?, /)).toBeHidden()
})

test('frames are made in the background, go on after a reload, and say where somebody was told only just', async ({
  page,
}) => {
  await openDemo(page)
  await goTo(page, 75)
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 250, y: 30 } })
  await page.keyboard.press('Shift+q')
  const ready = page.getByRole('status').filter({ hasText: 'frames are ready' })
  const made = async () => Number(/^(\d+) of 184/.exec((await ready.textContent()) ?? '')?.[1] ?? 0)
  await expect.poll(made).toBeGreaterThan(11)
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Make the rest' })).toBeVisible()
  const before = await made()
  // From the playhead outward: what is there lies round it.
  await expect(page.locator('[data-cut-row]')).toHaveAttribute('aria-label', /^Act A, left: \d+ of 184 frames/)
  await saved(page)
  await page.reload()
  await page.waitForSelector('main[data-ready=true]')
  // The shot opens where it was left: at that frame, with the piece chosen.
  expect(await frameNumber(page)).toBe(76)
  await expect.poll(made).toBeGreaterThan(before)
})

test('somebody is told by strokes alone, carried to other frames, settled and opened again', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 75)
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 250, y: 30 } })
  await page.keyboard.press('Shift+q')
  const piece = page.getByRole('button', { name: /^Plate cut-out/ })
  await expect(piece).toContainText('against empty-shop.mp4')
  await page.getByLabel('Plate', { exact: true }).selectOption('')
  await expect(piece).toContainText('no plate and no strokes yet')
  await page.keyboard.press('p')
  const paint = page.getByTestId('paint')
  await expect(paint).toBeVisible()
  const area = (await page.getByTestId('picture').boundingBox())!
  const stroke = async (...points: readonly (readonly [number, number])[]) => {
    const at = points.map(([x, y]) => [area.x + (x / 1280) * area.width, area.y + (y / 720) * area.height] as const)
    await page.mouse.move(...at[0]!)
    await page.mouse.down()
    for (const next of at.slice(1)) await page.mouse.move(...next, { steps: 6 })
    await page.mouse.up()
  }
  await stroke([440, 200], [430, 430])
  await page.keyboard.press('z')
  await stroke([260, 90], [260, 600])
  await stroke([640, 90], [640, 600])
  await stroke([260, 90], [640, 90])
  await page.keyboard.press('z')
  await expect(piece).toContainText('by strokes alone')
  const inside = async () => {
    const matte = await look(page, 'Matte')
    const seen = [pixelAt(matte, 430, 400)[0], pixelAt(matte, 150, 300)[0], pixelAt(matte, 1000, 300)[0]]
    await look(page, 'Picture')
    return seen
  }
  expect(await inside()).toEqual([255, 0, 0])
  await goTo(page, 80)
  await settled(page)
  expect(await inside()).toEqual([255, 0, 0])
  await expect(page.locator('[data-cut-row]')).toHaveAttribute('aria-label', /^Act A, left: \d+ of 184 frames/)
  await page.getByRole('button', { name: 'Settle' }).click()
  await page.keyboard.press('p')
  await expect(paint).toBeHidden()
  await page.keyboard.press('p')
  await page.getByRole('button', { name: 'Open again' }).click()
  await expect(page.getByText('4 strokes, 0 on this frame')).toBeVisible()
})
