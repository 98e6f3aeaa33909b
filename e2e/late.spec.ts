// Letters behind somebody who walks past: from one raw take, with mouse and keyboard, against what the generator knows.
import { expect, type Page, test } from '@playwright/test'
import { strideAt } from '../demo/acts'
import { silhouette } from '../demo/apprentice'
import { footageFrame } from '../demo/footage'
import { filmFrame } from './fixtures/film'
import { begin, goTo, handle, type Pixels, ready, saved, stagePixels, type as typeIn } from './fixtures/workbench'

const WIDTH = 1280
/** Frames at which the outline gets a key, and some between them. */
const KEYS = [66, 84, 102]
const BETWEEN = [75, 93]

async function onScreen(page: Page, { x, y }: { x: number; y: number }): Promise<[number, number]> {
  const box = (await page.getByTestId('picture').boundingBox())!
  const scale = box.width / WIDTH
  return [box.x + x * scale, box.y + y * scale]
}

async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(...(await onScreen(page, from)), { steps: 2 })
  await page.mouse.down()
  await page.mouse.move(...(await onScreen(page, to)), { steps: 3 })
  await page.mouse.up()
}

/** As she is, but no lower than the letters ask for. */
const outlineAt = (frame: number) => silhouette(strideAt(frame / 30)).map(({ x, y }) => ({ x, y: Math.min(y, 620) }))

/** Frames as they are on the stage. */
async function looks(page: Page, frames: readonly number[]): Promise<Pixels[]> {
  const pictures: Pixels[] = []
  for (const frame of frames) {
    await goTo(page, frame)
    pictures.push(await stagePixels(page))
  }
  return pictures
}

const away = (a: Pixels, b: Pixels, i: number): number =>
  Math.max(...[0, 1, 2].map(c => Math.abs(a.rgb[i * 3 + c]! - b.rgb[i * 3 + c]!)))

test('letters are typed on a wall, and she who walks past is brought before them by an outline', async ({ page }) => {
  await begin(page, ['apprentice-late'])
  const raw = await looks(page, BETWEEN)

  // Letters are typed where they stand, set in another font, made larger and carried to their place.
  await page.keyboard.press('Shift+T')
  await expect(page.getByRole('textbox', { name: 'Type the letters' })).toBeFocused()
  await page.keyboard.type('OPEN')
  await page.keyboard.press('Enter')
  await page.keyboard.type('LATE')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Font:/ }).click()
  await page.getByRole('menuitem', { name: /^Limelight/ }).click()
  await expect(page.getByRole('button', { name: 'Font: Limelight' })).toBeVisible()
  await typeIn(page, 'Size', 196)
  await typeIn(page, 'Leading', 0.92)
  const area = (await handle(page, 'Move the layer; with Alt the point it turns about').boundingBox())!
  const scale = (await page.getByTestId('picture').boundingBox())!.width / WIDTH
  await page.mouse.move(area.x + area.width / 4, area.y + area.height / 2)
  await page.mouse.down()
  await page.mouse.move(area.x + area.width / 4 + 60 * scale, area.y + area.height / 2 - 42 * scale, { steps: 5 })
  await page.mouse.up()
  await expect(page.locator('[data-layer="OPEN"]')).toBeVisible()
  const lettered = await looks(page, BETWEEN)
  expect(lettered[0]!.rgb.filter((v, i) => Math.abs(v - raw[0]!.rgb[i]!) > 30).length).toBeGreaterThan(60_000)

  // The same take once more, nearest the lens, cut out by an outline that is drawn round her.
  await goTo(page, 0)
  await page.getByRole('button', { name: 'Place apprentice-late.mp4 at the playhead' }).click()
  await expect(page.locator('[data-layer="apprentice-late, 2"]')).toBeVisible()
  await page.getByTestId('ruler').focus()
  for (const key of ['1', '3']) await page.keyboard.press(key)
  await goTo(page, KEYS[0]!)
  await page.keyboard.press('Shift+U')
  for (const point of outlineAt(KEYS[0]!)) {
    await page.mouse.move(...(await onScreen(page, point)), { steps: 2 })
    await page.mouse.down()
    await page.mouse.up()
  }
  await page.keyboard.press('Enter')
  let now = outlineAt(KEYS[0]!)
  for (const frame of KEYS.slice(1)) {
    await goTo(page, frame)
    const wanted = outlineAt(frame)
    // All of it goes along; then what has moved otherwise is mended, point by point.
    await page.keyboard.press('q')
    const by = { x: wanted[2]!.x - now[2]!.x, y: wanted[2]!.y - now[2]!.y }
    await drag(page, now[2]!, wanted[2]!)
    await page.keyboard.press('q')
    now = now.map(p => ({ x: p.x + by.x, y: p.y + by.y }))
    for (const [i, point] of wanted.entries()) {
      if (Math.hypot(point.x - now[i]!.x, point.y - now[i]!.y) > 2.5) await drag(page, now[i]!, point)
    }
    now = wanted
  }
  await page.getByTestId('ruler').focus()
  for (const key of ['1', '3']) await page.keyboard.press(key)
  await page.getByRole('toolbar', { name: 'Views' }).getByRole('button', { name: 'Picture', exact: true }).click()
  const made = await looks(page, BETWEEN)

  // Where she is, her picture shows; where she is not, the letters do.
  for (const [n, frame] of BETWEEN.entries()) {
    const { matte } = footageFrame('apprentice-late', frame)
    let [asked, wrong] = [0, 0]
    matte.forEach((share, i) => {
      if ((share > 0.02 && share < 0.98) || away(lettered[n]!, raw[n]!, i) < 40) return
      asked++
      if (away(made[n]!, share > 0.5 ? raw[n]! : lettered[n]!, i) > 24) wrong++
    })
    expect(asked).toBeGreaterThan(20_000)
    expect(wrong / asked).toBeLessThan(0.05)
  }

  // It is all there again after the page was closed, and the film is what the stage shows.
  await saved(page)
  await page.reload()
  await ready(page)
  const [again] = await looks(page, [BETWEEN[0]!])
  expect(Buffer.compare(again!.rgb, made[0]!.rgb)).toBe(0)
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('radio', { name: 'A part' }).click()
  for (const [label, frame] of [
    ['Last frame', BETWEEN[0]! + 3],
    ['First frame', BETWEEN[0]! + 1],
  ] as const) {
    await page.getByRole('textbox', { name: label }).fill(String(frame))
    await page.getByRole('textbox', { name: label }).press('Enter')
  }
  await page.getByRole('button', { name: 'Make the file' }).click()
  const download = page.waitForEvent('download', { timeout: 120_000 })
  await page.getByRole('button', { name: 'Save', exact: true }).click({ timeout: 120_000 })
  const { pixels } = await filmFrame(await (await download).path(), 0)
  const mean = pixels.rgb.reduce((sum, v, i) => sum + Math.abs(v - made[0]!.rgb[i]!), 0) / pixels.rgb.length
  expect(mean).toBeLessThan(4)
})
