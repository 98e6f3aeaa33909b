// A piece that rides on a point of the picture: aimed at, followed, kept as keys, the same after a reload.
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder } from './fixtures/files'
import { terminalFrame } from './fixtures/terminal'
import {
  frameNumber,
  goTo,
  look,
  openDemo,
  type Pixels,
  pixelAt,
  saved,
  savedFrame,
  type,
  unlike,
} from './fixtures/workbench'

/** The middle of what a matte keeps. */
function middleOf(matte: Pixels): { x: number; y: number; count: number } {
  let [x, y, count] = [0, 0, 0]
  for (let v = 0; v < matte.height; v += 2) {
    for (let u = 0; u < matte.width; u += 2) {
      if (pixelAt(matte, u, v)[0]! < 128) continue
      x += u
      y += v
      count++
    }
  }
  return { x: x / count, y: y / count, count }
}

test('an oval rides on the clockmaker’s face, there and back, and lies there in a terminal too', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 75)
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 250, y: 30 } })
  await page.keyboard.press('Shift+o')
  await page.keyboard.press('Alt+r')
  const aim = page.getByTestId('aim')
  await expect(aim).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(aim).toBeHidden()
  await page.getByRole('button', { name: 'Ride on a point' }).first().click()
  const area = (await page.getByTestId('picture').boundingBox())!
  await page.mouse.click(area.x + (393 / 1280) * area.width, area.y + (250 / 720) * area.height)
  await expect(page.locator('[data-keys$="motion"]')).toBeVisible()
  await saved(page)
  const at75 = middleOf(await look(page, 'Matte'))
  await goTo(page, 150)
  const at150 = middleOf(await look(page, 'Matte'))
  // He hardly leaves his place, and neither does it; but it is not quite where it was.
  const far = Math.hypot(at150.x - at75.x, at150.y - at75.y)
  expect(far).toBeGreaterThan(0.2)
  expect(far).toBeLessThan(60)
  expect(Math.abs(at150.count / at75.count - 1)).toBeLessThan(0.03)
  await look(page, 'Picture')
  const frame = await savedFrame(page)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const path = join(folder(), 'ride.ghost')
  await (await download).saveAs(path)
  expect(unlike(frame, await terminalFrame(path, 150))).toBe(0)

  // Without its jitter it lies where it lay, by fewer keys.
  const marks = page.locator('[data-keys$="motion"] [data-key]')
  const followed = await marks.count()
  await marks.last().click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Take the jitter out' }).click()
  await expect.poll(() => marks.count()).toBeLessThan(followed)
  const calm = middleOf(await look(page, 'Matte'))
  expect(Math.hypot(calm.x - at150.x, calm.y - at150.y)).toBeLessThan(1.5)
  await page.keyboard.press('Control+z')
  await expect(marks).toHaveCount(followed)
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-keys$="motion"]')).toBeHidden()
})

test('two ovals of a layer are let ride at once, each on its own point, while somebody goes on', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 75)
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 250, y: 30 } })
  const area = (await page.getByTestId('picture').boundingBox())!
  for (const [x, y] of [
    [393, 250],
    [475, 236],
  ] as const) {
    await page.keyboard.press('Shift+o')
    await page.keyboard.press('Alt+r')
    await page.mouse.click(area.x + (x / 1280) * area.width, area.y + (y / 720) * area.height)
  }
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('button', { name: /^Following: \d+ of \d+ · Stop$/ })).toBeVisible()
  await expect(page.locator('[data-keys$="motion"]')).toHaveCount(2)
  // Where the chosen one goes shows on the stage.
  await expect(page.getByTestId('way')).toHaveCount(1)
  // The playhead went on meanwhile: frames are counted from 1.
  await saved(page)
  expect(await frameNumber(page)).toBe(77)
})

test('a box on a crate is carried along as its outline, in perspective', async ({ page }) => {
  await openDemo(page, 'Trolley')
  await goTo(page, 90)
  await page.locator('[data-bar="The trolley, cut out"]').click({ position: { x: 300, y: 20 } })
  await page.keyboard.press('Shift+b')
  for (const [name, value] of [
    ['Across', 471],
    ['Down', 464],
    ['Width', 110],
    ['Height', 104],
  ] as const)
    await type(page, name, value)
  await page.getByRole('radio', { name: 'Keeps only' }).click()
  await page.keyboard.press('Alt+Shift+C')
  const marks = page.locator('[data-keys^="Outline"][data-keys$="shape"] [data-key]')
  await expect.poll(() => marks.count()).toBeGreaterThan(1)
  const here = middleOf(await look(page, 'Matte'))
  await goTo(page, 130)
  const there = middleOf(await look(page, 'Matte'))
  // The trolley rolls on by 10.6 px a frame.
  expect(Math.abs(there.x - here.x - 424)).toBeLessThan(2)
  expect(Math.abs(there.y - here.y)).toBeLessThan(2)
  expect(Math.abs(there.count / here.count - 1)).toBeLessThan(0.05)
})
