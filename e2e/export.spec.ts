// Films out of the browser, decoded again outside it.
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { folder } from './fixtures/files'
import { filmFrame } from './fixtures/film'
import { soundLate } from './fixtures/sound'
import { privateFiles } from './fixtures/stored'
import { mediaInfo, terminalFrame } from './fixtures/terminal'
import { closestTo, openDemo, type Pixels, saved } from './fixtures/workbench'

async function make(
  page: Page,
  choices: { format: RegExp; size: string; first: number; last: number },
): Promise<string> {
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('radio', { name: choices.format }).click()
  await page.getByRole('radio', { name: choices.size, exact: true }).click()
  await page.getByRole('radio', { name: 'A part' }).click()
  for (const [label, value] of [
    ['Last frame', choices.last],
    ['First frame', choices.first],
  ] as const) {
    await page.getByRole('textbox', { name: label }).fill(String(value))
    await page.getByRole('textbox', { name: label }).press('Enter')
  }
  await page.getByRole('button', { name: 'Make the file' }).click()
  await expect(page.getByRole('status').first()).toContainText('finished', { timeout: 300_000 })
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  const file = await download
  const path = join(folder(), file.suggestedFilename())
  await file.saveAs(path)
  return path
}

/** Mean difference of a code. */
function difference(a: Pixels, b: Pixels): number {
  expect([a.width, a.height]).toEqual([b.width, b.height])
  let sum = 0
  for (let i = 0; i < a.rgb.length; i++) sum += Math.abs(a.rgb[i]! - b.rgb[i]!)
  return sum / a.rgb.length
}

test('MP4 has exactly the frames asked for, full size, with sound', async ({ page }) => {
  await openDemo(page)
  const path = await make(page, { format: /MP4/, size: 'Full', first: 71, last: 100 })
  expect(path).toMatch(/Two at the counter\.mp4$/)
  const info = mediaInfo(path)
  expect(info.picture.size).toEqual({ width: 1280, height: 720 })
  expect(info.picture.seconds).toBeCloseTo(1, 3)
  expect(info.sound!.seconds).toBeGreaterThan(0.97)
  expect(Math.abs(await soundLate(path, 'two-at-the-counter', 70, 30))).toBeLessThan(20)
  for (const [at, frame] of [
    [0, 70],
    [6 / 30, 76],
    [29 / 30, 99],
  ] as const) {
    const film = await filmFrame(path, at)
    expect(film.frames).toBe(30)
    expect(difference(film.pixels, await terminalFrame('two-at-the-counter', frame))).toBeLessThan(3)
  }
})

test('WebM is made at half size, as good a picture as MP4, its sound in step', async ({ page }) => {
  await openDemo(page)
  const path = await make(page, { format: /WebM/, size: 'Half', first: 1, last: 45 })
  expect(mediaInfo(path).picture.size).toEqual({ width: 640, height: 360 })
  expect((await filmFrame(path, 0)).frames).toBe(45)
  expect(Math.abs(await soundLate(path, 'two-at-the-counter', 0, 45))).toBeLessThan(20)
  // Frame against frame; times of whole milliseconds must not be met from below.
  for (const frame of [9, 30]) {
    const film = await filmFrame(path, (frame + 0.5) / 30)
    expect(closestTo(film.pixels, await terminalFrame('two-at-the-counter', frame, 0.5))).toBeGreaterThan(30)
  }
})

test('an export is stopped at once, and editing goes on while one runs', async ({ page }) => {
  await openDemo(page)
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('button', { name: 'Make the file' }).click()
  const job = page.locator('[data-job]').first()
  await expect(job).toContainText(/\d+ of 184 frames.*left/)
  await expect(job).toContainText('1280×720 · 184 frames')
  await page.getByRole('link', { name: 'Two at the counter' }).click()
  await page.waitForSelector('main[data-ready=true]')
  await page.locator('[data-layer="Act B, right"]').getByRole('button', { name: 'Hide Act B, right' }).click()
  await saved(page)
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(job).toHaveAttribute('data-job', 'stopped')
  // Its thread has ended at once; its file goes as soon as that has let go of it.
  await expect(async () => expect(await privateFiles(page)).toEqual([])).toPass()
})
