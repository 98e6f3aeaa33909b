// The trick from raw takes, with mouse and keyboard, as somebody would make it.
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { clip, folder } from './fixtures/files'
import { filmFrame } from './fixtures/film'
import {
  dragBy,
  field,
  goTo,
  handle,
  loseNearestTake,
  pixelAt,
  ready,
  saved,
  settled,
  stagePixels,
  unlike,
} from './fixtures/workbench'

/** Drops files from elsewhere on a part of the page. */
async function drop(page: Page, target: string, names: readonly string[]): Promise<void> {
  const files = names.map(name => ({ name: `${name}.mp4`, base64: readFileSync(clip(name)).toString('base64') }))
  const data = await page.evaluateHandle(async list => {
    const transfer = new DataTransfer()
    for (const { name, base64 } of list) {
      const bytes = await (await fetch(`data:video/mp4;base64,${base64}`)).arrayBuffer()
      transfer.items.add(new File([bytes], name, { type: 'video/mp4' }))
    }
    return transfer
  }, files)
  await page.dispatchEvent(target, 'dragover', { dataTransfer: data })
  await page.dispatchEvent(target, 'drop', { dataTransfer: data })
}

test('two takes dropped on the page become one man twice, and a film of him', async ({ page }) => {
  await page.goto('/')
  await drop(page, 'main', ['clockmaker-left', 'clockmaker-right'])
  await ready(page)
  await goTo(page, 76)
  const whole = await stagePixels(page)

  // One press lays an edge on the nearer layer; one drag puts it in the gap; two widen its feather.
  await page.keyboard.press('Shift+E')
  await expect(handle(page, 'Move the edge')).toBeVisible()
  await dragBy(page, handle(page, 'Move the edge'), 6, 0)
  await dragBy(page, handle(page, 'Turn the edge'), 8, 0)
  await dragBy(page, handle(page, 'Feather inside'), 8, 0)
  await dragBy(page, handle(page, 'Feather outside'), -8, 0)
  await settled(page)
  const twice = await stagePixels(page)
  expect(unlike(twice, whole)).toBeGreaterThan(200_000)
  // Right of the seam the nearer take is untouched; left of it stands the other man.
  let touched = 0
  for (let i = 0; i < whole.rgb.length; i++) if (i % (1280 * 3) >= 800 * 3 && twice.rgb[i] !== whole.rgb[i]) touched++
  expect(touched).toBe(0)
  expect(pixelAt(twice, 440, 290)[0]).toBeGreaterThan(pixelAt(whole, 440, 290)[0]! + 40)

  // The nearer act comes half a second later: slid by its bar, then to the frame by keyboard.
  const lane = page.locator('[data-bar="clockmaker-right"]').getByRole('button')
  await dragBy(page, lane, 60, 0)
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Alt+ArrowRight')
  expect(Number(await field(page, 'Begins at').inputValue())).toBeGreaterThan(5)

  // A third take comes in from beside the stage, is sent to the back, and the shot gets its name.
  await drop(page, '[aria-label=Takes]', ['empty-shop'])
  await page.getByRole('button', { name: 'Place empty-shop.mp4 at the playhead' }).click()
  const cards = page.getByRole('region', { name: 'Depth stack' }).locator('[data-layer]')
  await expect(cards).toHaveCount(3)
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Shift+ArrowDown')
  await expect(cards.last()).toHaveAttribute('data-layer', 'empty-shop')
  await page.getByRole('textbox', { name: 'Name of the shot' }).fill('Twice')
  await page.keyboard.press('Enter')
  await saved(page)
  await settled(page)
  const done = await stagePixels(page)

  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('radio', { name: 'A part' }).click()
  for (const [label, frame] of [
    ['Last frame', 80],
    ['First frame', 77],
  ] as const) {
    await page.getByRole('textbox', { name: label }).fill(String(frame))
    await page.getByRole('textbox', { name: label }).press('Enter')
  }
  await page.getByRole('button', { name: 'Make the file' }).click()
  const download = page.waitForEvent('download', { timeout: 120_000 })
  await page.getByRole('button', { name: 'Save', exact: true }).click({ timeout: 120_000 })
  const path = join(folder(), 'Twice.mp4')
  expect((await download).suggestedFilename()).toBe('Twice.mp4')
  await (await download).saveAs(path)
  const film = await filmFrame(path, 0)
  expect(film.frames).toBe(4)
  for (const [x, y] of [
    [330, 400],
    [960, 400],
    [640, 600],
    [1150, 300],
  ] as const) {
    for (const c of [0, 1, 2])
      expect(Math.abs(pixelAt(film.pixels, x, y)[c]! - pixelAt(done, x, y)[c]!)).toBeLessThan(26)
  }
})

test('a shot is removed when that is confirmed, and nothing of it stays', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles([clip('empty-shop')])
  await ready(page)
  await saved(page)
  await page.getByRole('link', { name: 'Shots' }).click()
  const shots = page.getByRole('region', { name: 'Shots on this machine' })
  await shots.getByRole('button', { name: 'Remove empty-shop' }).click()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(shots.getByRole('listitem')).toHaveCount(1)
  await shots.getByRole('button', { name: 'Remove empty-shop' }).click()
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(shots).toHaveCount(0)
  const left = await page.evaluate(
    () =>
      new Promise(resolve => {
        const open = indexedDB.open('jolly-ghost')
        open.onsuccess = () => {
          const count = open.result.transaction('media').objectStore('media').count()
          count.onsuccess = () => resolve(count.result)
        }
      }),
  )
  expect(left).toBe(0)
})

test('a take that is gone is named, its layer left out, and playing goes on', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles([clip('empty-shop'), clip('clockmaker-left')])
  await ready(page)
  await loseNearestTake(page)
  await expect(page.getByText('“clockmaker-left.mp4” is no longer on this machine')).toBeVisible()
  await expect(page.getByText('A take gives no picture on this frame')).toBeVisible()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByTestId('frame-number')).not.toHaveText('frame 1 of 180')
  await page.keyboard.press('Space')
})

test('a take with a broken stretch is named there, and playing neither hangs nor stops for good', async ({ page }) => {
  const bytes = readFileSync(clip('clockmaker-left'))
  const from = Math.floor(bytes.length * 0.4)
  for (let i = from; i < from + 300_000; i++) bytes[i] = (i * 89) & 255
  const path = join(folder(), 'broken.mp4')
  writeFileSync(path, bytes)
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles([clip('empty-shop'), path])
  await ready(page)
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  const number = page.getByTestId('frame-number')
  // Past the stretch, to the very end.
  await expect(number).toHaveText('frame 180 of 180')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await goTo(page, 10)
  await goTo(page, 170)
})
