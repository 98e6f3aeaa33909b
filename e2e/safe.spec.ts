// Nothing lost, nothing wrong: whatever is thrown at it gets a picture or a sentence, and opens again.
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { encode } from 'fast-png'
import { foreignFilm } from '../src/testing/foreign'
import { clip, folder } from './fixtures/files'
import { privateFiles, store, storedText } from './fixtures/stored'
import { mediaInfo } from './fixtures/terminal'
import { begin, field, goTo, openDemo, ready, saved, settled, stagePixels, type, unlike } from './fixtures/workbench'

const SHOT = 'two-at-the-counter'
const problem = (page: Page) => page.locator('[data-sonner-toast]')
const undo = (page: Page) => page.getByRole('button', { name: 'Undo' })
const take = (page: Page, name: string) => page.locator(`[data-take="${name}"]`)

test('a take that no document could hold is refused, and the shot opens again', async ({ page }) => {
  await openDemo(page)
  const wide = join(folder(), 'wide.png')
  writeFileSync(wide, encode({ width: 16_000, height: 2, data: new Uint8Array(96_000), channels: 3 }))
  const long = join(folder(), `${'a'.repeat(240)}.png`)
  writeFileSync(long, encode({ width: 20, height: 20, data: new Uint8Array(1200), channels: 3 }))
  await page.getByLabel('Bring in takes').setInputFiles([wide, long])
  await expect(problem(page).filter({ hasText: 'wide.png' })).toContainText('a side of a picture (1 to 8,192 px)')
  await expect(page.locator('[data-take^="aaa"]')).toHaveCount(1)
  await saved(page)
  await page.reload()
  await ready(page)
  await expect(page.locator('[data-take^="aaa"]')).toHaveCount(1)
})

test('a damaged shot opens as far as it goes, says what is left out, and gives back what there was', async ({
  page,
}) => {
  await openDemo(page)
  await type(page, 'Turn', 12)
  await saved(page)
  await page.goto('/')
  const project = JSON.parse(await storedText(page, SHOT))
  project.shot.layers.push({ ...project.shot.layers[0], id: 'broken', name: 'Broken', opacity: 'much' })
  project.takes.push({
    ...project.takes[0],
    digest: 'e'.repeat(64),
    name: 'wide.png',
    picture: { kind: 'still', size: { width: 16_000, height: 9 } },
  })
  const text = JSON.stringify(project)
  await store(page, SHOT, text)
  await page.goto(`/shot/${SHOT}`)
  await ready(page)
  const told = page.getByRole('status').filter({ hasText: 'Not all of this shot could be opened' })
  await expect(told).toContainText('the layer “Broken”')
  await expect(told).toContainText('the take “wide.png”')
  await expect(field(page, 'Turn')).toHaveValue('12')
  await type(page, 'Turn', 5)
  await saved(page)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save it as it was' }).click()
  expect(readFileSync(await (await download).path(), 'utf8')).toBe(text)
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(told).toHaveCount(0)
  await page.reload()
  await ready(page)
  await expect(told).toHaveCount(0)

  // Where there is nothing to open, that is said, and the file can still be had.
  await page.goto('/')
  await store(page, SHOT, '{"format":"jolly-gh')
  await page.goto('/')
  await expect(page.getByText('cannot be read')).toBeVisible()
  await page.goto(`/shot/${SHOT}`)
  await expect(page.getByText('This shot cannot be opened.')).toBeVisible()
  const torn = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save it as it was kept' }).click()
  expect(readFileSync(await (await torn).path(), 'utf8')).toBe('{"format":"jolly-gh')
})

test('a film that the browser cannot read is converted on this machine, and can be stopped', async ({ page }) => {
  const film = await foreignFilm('hevc', folder())
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles(film)
  await expect(problem(page)).toContainText(
    '“phone.mp4” is coded as HEVC, which cannot be decoded here. This machine can convert it.',
  )
  await page.getByRole('button', { name: 'Convert it here' }).click()
  await ready(page)
  await expect(take(page, 'phone.mov')).toContainText('96×64, 29.97 fps')
  await goTo(page, 20)
  const bar = await stagePixels(page)
  const bright = (x: number) => bar.rgb[(32 * bar.width + x) * 3]!
  expect(bright(48)).toBeGreaterThan(200)
  expect(bright(20)).toBeLessThan(120)

  // One of which nothing is heard any more, stopped.
  await page.route('**/convert/*/state', () => {})
  await page.getByLabel('Bring in takes').setInputFiles(await foreignFilm('prores', folder()))
  await page.getByRole('button', { name: 'Convert it here' }).click()
  await expect(page.getByText(/Converting camera\.mov: \d+%/)).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).last().click()
  await expect(page.getByText('Bring in takes, stills or sound')).toBeVisible()
  await expect(page.locator('[data-take]')).toHaveCount(1)
})

test('numbered stills come in as one take, at a rate that is asked for', async ({ page }) => {
  const into = folder()
  const stills = Array.from({ length: 12 }, (_, i) => {
    const path = join(into, `smoke.${String(i + 1).padStart(4, '0')}.png`)
    writeFileSync(path, encode({ width: 64, height: 36, channels: 3, data: new Uint8Array(6912).fill(i * 20) }))
    return path
  })
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles([...stills].reverse())
  const asked = page.getByRole('dialog')
  await expect(asked).toContainText('12 numbered stills')
  await asked.getByRole('textbox', { name: 'Frames a second' }).fill('12')
  await asked.getByRole('button', { name: 'Bring them in' }).click()
  await ready(page)
  await expect(take(page, 'smoke.#.png')).toContainText('64×36, 12 fps')
  await expect(page.getByTestId('frame-number')).toContainText('of 12')
  await goTo(page, 7)
  expect([...(await stagePixels(page)).rgb.subarray(0, 3)]).toEqual([140, 140, 140])
  await page.reload()
  await ready(page)
  await goTo(page, 3)
  expect([...(await stagePixels(page)).rgb.subarray(0, 3)]).toEqual([60, 60, 60])
})

test('a file that sends its reader round in circles is given up, and another comes in after it', async ({ page }) => {
  const bytes = readFileSync(clip('empty-shop'))
  // The first count of the table of times, beyond all that a film can have.
  bytes.writeUInt32BE(0xffff_fff0, bytes.indexOf('stts') + 12)
  const hostile = join(folder(), 'circles.mp4')
  writeFileSync(hostile, bytes)
  await page.clock.install()
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles([hostile, clip('clockmaker-left')])
  await expect(page.getByText('circles.mp4')).toBeVisible()
  // As much patience as a file of that size is given.
  await page.clock.fastForward(25_000)
  await expect(problem(page)).toContainText('“circles.mp4” cannot be read to its end')
  await ready(page)
  await expect(take(page, 'clockmaker-left.mp4')).toHaveCount(1)
})

test('an export is stopped at whatever moment, and leaves nothing', async ({ page }) => {
  await openDemo(page)
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('button', { name: 'Make the file' }).click()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.locator('[data-job=stopped]')).toHaveCount(1)
  await expect(async () => expect((await privateFiles(page)).filter(n => /\.mp4$/.test(n))).toEqual([])).toPass()
  // While one is being made, leaving the page asks.
  await page.getByRole('button', { name: 'Make the file' }).click()
  await expect(page.locator('[data-job=running]')).toContainText(/[1-9]\d* of 184/)
  let asked = ''
  page.once('dialog', dialog => {
    asked = dialog.type()
    void dialog.dismiss()
  })
  await page.evaluate(() => location.assign('/guide')).catch(() => {})
  await expect(async () => expect(asked).toBe('beforeunload')).toPass()
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(page.locator('[data-job=stopped]')).toHaveCount(2)
})

test('an export goes on where its page was closed, and stays listed until it is forgotten', async ({ page }) => {
  await openDemo(page)
  await page.getByRole('link', { name: 'Export' }).click()
  await page.getByRole('radio', { name: 'Quarter' }).click()
  await page.getByRole('button', { name: 'Make the file' }).click()
  await page.getByRole('button', { name: 'Make the file' }).click()
  await expect(page.locator('[data-job=running]')).toContainText(/[1-9]\d* of 184/)
  await expect(page.locator('[data-job=waiting]')).toContainText('waits until the one before is made')
  page.on('dialog', dialog => void dialog.accept())
  await page.reload()
  await expect(page.locator('[data-job=done]')).toHaveCount(2)
  await page.reload()
  await expect(page.locator('[data-job=done]')).toHaveCount(2)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save', exact: true }).first().click()
  const path = join(folder(), 'film.mp4')
  await (await download).saveAs(path)
  expect(mediaInfo(path).picture).toMatchObject({ size: { width: 320, height: 180 } })
  for (const _ of [1, 2]) await page.getByRole('button', { name: 'Forget' }).first().click()
  await expect(page.locator('[data-job]')).toHaveCount(0)
  await expect(async () => expect(await privateFiles(page)).toEqual([])).toPass()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Make the file' })).toBeVisible()
  await expect(page.locator('[data-job]')).toHaveCount(0)
})

test('a shot that is open elsewhere is not removed', async ({ page, context }) => {
  await openDemo(page)
  const other = await context.newPage()
  await other.goto('/')
  await other.getByRole('button', { name: 'Remove Two at the counter' }).click({ force: true })
  await other.getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(problem(other)).toContainText('open in another tab')
  await type(page, 'Turn', 7)
  await saved(page)
  await page.reload()
  await ready(page)
  await expect(field(page, 'Turn')).toHaveValue('7')
  await expect(page.getByText('is no longer on this machine')).toHaveCount(0)
})

test('a take that is looked at alone leaves the shot where it was', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 30)
  const before = await stagePixels(page)
  const card = page.locator('[data-layer] canvas').first()
  const looks = () => card.evaluate((c: HTMLCanvasElement) => c.toDataURL())
  await page.waitForTimeout(600)
  const small = await looks()
  await page.getByRole('button', { name: /^Keying/ }).click()
  await take(page, 'clockmaker-left.mp4').getByRole('button').first().click()
  await expect(page.getByRole('button', { name: 'In here' })).toBeVisible()
  await page.getByTestId('ruler').focus()
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowRight')
  await settled(page)
  // A value that is typed now is a key of the shot's frame, not of the take's.
  await field(page, 'Turn').fill('20')
  await field(page, 'Turn').press('Enter')
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('frame-number')).toContainText('frame 31 of')
  await settled(page)
  await expect(field(page, 'Turn')).toHaveValue('20')
  await undo(page).click()
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)
  await page.waitForTimeout(600)
  expect(await looks()).toBe(small)
})

test('an emptied number stays, a name is one step, a question that is left is none', async ({ page }) => {
  await begin(page, ['clockmaker-left'])
  await type(page, 'Begins at', 5)
  await field(page, 'Begins at').fill('')
  await field(page, 'Begins at').press('Enter')
  await expect(field(page, 'Begins at')).toHaveValue('5')
  await page.getByRole('button', { name: 'Row of copies…' }).click()
  await page.getByRole('button', { name: 'Leave it' }).click()
  await undo(page).click()
  await expect(field(page, 'Begins at')).toHaveValue('0')
  await expect(undo(page)).toBeDisabled()

  await take(page, 'clockmaker-left.mp4').getByRole('button').first().click()
  await page.getByTestId('ruler').focus()
  for (const key of ['i', 'Shift+ArrowRight', 'Shift+ArrowRight', 'o', 'k']) await page.keyboard.press(key)
  const name = page.getByRole('textbox', { name: 'Name of the act' })
  await name.fill('')
  await name.pressSequentially('He waves')
  await name.press('Enter')
  await expect(name).toHaveValue('He waves')
  await undo(page).click()
  await expect(name).toHaveValue('Act 1')
})

test('an edit that goes beyond all bounds is refused with a sentence', async ({ page }) => {
  await openDemo(page)
  await page.getByRole('tab', { name: 'Place' }).click()
  await type(page, 'Scale', 400)
  await type(page, 'Anchor across', 1_000_000)
  await expect(problem(page)).toContainText('would go beyond what can be kept: a length')
  await expect(field(page, 'Anchor across')).toHaveValue('640')
  await page.reload()
  await ready(page)
})
