// Letters behind somebody who walks past: from one raw take, with mouse and keyboard, against what the generator knows.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { silhouette } from '../demo/apprentice'
import { footageFrame } from '../demo/footage'
import { strideAt } from '../demo/walks'
import { folder, ROOT } from './fixtures/files'
import { filmFrame } from './fixtures/film'
import { terminalFrame } from './fixtures/terminal'
import {
  begin,
  exportPart,
  goTo,
  handle,
  type Pixels,
  ready,
  saved,
  settled,
  stagePixels,
  type as typeIn,
  unlike,
} from './fixtures/workbench'

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
  // Whoever types before the font is there loses nothing.
  await page.keyboard.type('OP')
  const sheet = page.getByRole('textbox', { name: 'Type the letters' })
  await expect(sheet).toBeFocused()
  await expect(sheet).toHaveValue('OP')
  await page.keyboard.type('EN')
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
  const { pixels } = await filmFrame(await exportPart(page, BETWEEN[0]! + 1, BETWEEN[0]! + 3), 0)
  const mean = pixels.rgb.reduce((sum, v, i) => sum + Math.abs(v - made[0]!.rgb[i]!), 0) / pixels.rgb.length
  expect(mean).toBeLessThan(4)
})

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 120 90"><script>document.title = 'run'</script>
<circle cx="45" cy="45" r="40" fill="#c33" fill-opacity=".6"/><path d="M60 5 115 85H20Z" fill="none" stroke="#fe8" stroke-width="5"/></svg>`

test('letters, panels and drawings are the same to the bit in the browser and in the terminal, and come back as they were', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Open Open late' }).click()
  await ready(page)
  await goTo(page, 90)
  const before = await stagePixels(page)

  // A drawing, turned and enlarged; a panel that fades out, with a line and a shadow; letters of another script, larger by keys.
  await page
    .getByLabel('Bring in takes', { exact: true })
    .setInputFiles({ name: 'sign.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(SVG) })
  await page.getByRole('button', { name: 'Place sign.svg at the playhead' }).click()
  await page.getByRole('tab', { name: 'Place' }).click()
  await typeIn(page, 'Scale', 173)
  await typeIn(page, 'Turn', 21)
  await page.getByRole('button', { name: 'Add letters or a panel' }).click()
  await page.getByRole('menuitem', { name: 'New panel: an oval' }).click()
  await page.getByRole('radio', { name: 'gradient' }).click()
  await page.getByRole('switch', { name: 'Line round it' }).click()
  await page.getByRole('switch', { name: 'Shadow' }).click()
  await page.getByRole('tab', { name: 'Place' }).click()
  await typeIn(page, 'Across', 960)
  await typeIn(page, 'Opacity', 60)
  await page.locator('[data-layer="OPEN"]').click()
  await page.getByRole('tab', { name: 'Letters' }).click()
  await page.getByRole('textbox', { name: 'What the letters say' }).fill('Late\nпоздно متأخر')
  await page.getByRole('button', { name: 'Set a key for size' }).click()
  await goTo(page, 60)
  await typeIn(page, 'Size', 90)
  await expect(page.locator('[data-layer="Late"]')).toHaveCount(1)
  // What the font lacks is brought in meanwhile.
  await expect(page.getByText('What it lacks is set in Noto Sans, Noto Naskh Arabic.')).toBeVisible()
  await page.getByTestId('ruler').focus()
  await goTo(page, 75)
  await saved(page)
  expect(unlike(await stagePixels(page), before)).toBeGreaterThan(50_000)
  expect(await page.title()).not.toBe('run')

  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const file = join(folder(), 'late.jollyghost.zip')
  await (await download).saveAs(file)
  for (const frame of [75, 90]) {
    await goTo(page, frame)
    expect(unlike(await stagePixels(page), await terminalFrame(file, frame))).toBe(0)
  }
  const last = await stagePixels(page)
  await page.goto('/')
  await page.getByLabel('Project file').setInputFiles(file)
  await ready(page)
  await goTo(page, 90)
  expect(unlike(await stagePixels(page), last)).toBe(0)
})

test('a font of one’s own is kept with the shot, and what is none is refused', async ({ page }) => {
  await begin(page, ['apprentice-late'])
  await page.keyboard.press('Shift+T')
  await page.getByRole('textbox', { name: 'Type the letters' }).waitFor()
  await page.keyboard.press('Escape')
  const own = (name: string, buffer: Buffer) =>
    page.getByLabel('Bring in a font').setInputFiles({ name, mimeType: 'font/ttf', buffer })
  await own('no font.ttf', Buffer.from('OTTO and nothing else'))
  await expect(page.getByText(/“no font\.ttf” is damaged, or no font/)).toBeVisible()
  await own('rye.woff2', readFileSync(join(ROOT, 'node_modules/@fontsource/rye/files/rye-latin-400-normal.woff2')))
  await expect(page.getByRole('button', { name: 'Font: Rye' })).toBeVisible()
  await settled(page)
  const made = await stagePixels(page)
  await saved(page)
  await page.reload()
  await ready(page)
  expect(unlike(await stagePixels(page), made)).toBe(0)
  // Letters become pieces of a panel that looks the same.
  await page.locator('[data-layer="Lettering"]').click()
  await page.getByRole('tab', { name: 'Letters' }).click()
  await page.getByRole('button', { name: 'Make pieces of them' }).click()
  await expect(page.getByRole('button', { name: /^Delete Letter 9/ }).first()).toBeVisible()
  await settled(page)
  const pieces = await stagePixels(page)
  expect(unlike(pieces, made)).toBeLessThan(4000)
  expect(pieces.rgb.reduce((sum, v, i) => Math.max(sum, Math.abs(v - made.rgb[i]!)), 0)).toBeLessThan(90)
})
