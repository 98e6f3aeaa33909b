// Work is kept, moves between browsers, and is not spoilt by what comes in.
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { AxeBuilder } from '@axe-core/playwright'
import { expect, type Page, test } from '@playwright/test'
import { strToU8, zipSync } from 'fflate'
import { clip, folder } from './fixtures/files'
import { damageSheets, soundSheets } from './fixtures/stored'
import { ghost, terminalFrame } from './fixtures/terminal'
import { goTo, NAME, openDemo, ready, saved, stagePixels, type, unlike } from './fixtures/workbench'

const problem = (page: Page) => page.locator('[data-sonner-toast]')

const demoCard = (page: Page) =>
  page.getByRole('region', { name: 'Demo shots' }).getByRole('link', { name: `Open ${NAME}` })

test('the first page shows the demo shot with its picture; going to and fro quickly leaves it open, to be changed', async ({
  page,
}) => {
  await page.goto('/')
  const card = demoCard(page)
  await expect(card).toContainText('1280×720 · 30 fps')
  await expect
    .poll(() => card.locator('img').evaluate(img => (img as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(300)
  await card.click()
  await ready(page)
  for (let i = 0; i < 3; i++) {
    await page.goBack()
    await page.goForward()
  }
  await ready(page)
  await expect(page.getByText('open in another tab')).toHaveCount(0)
  await type(page, 'Across', 655)
  await saved(page)
})

test('an address opens a demo shot wherever it leads to, and says where there is none', async ({ page }) => {
  await page.goto('/shot/stuck-second/export')
  await expect(page.getByRole('link', { name: 'Stuck second' })).toBeVisible()
  await page.goto('/shot/nobody')
  await expect(page.getByText('There is no such shot on this machine.')).toBeVisible()
  await expect(page.getByRole('button')).toHaveCount(0)
  // One that is long in coming says how far it is, and whoever leaves it need not wait for it.
  await page.route('**/clockmaker-left.mp4', () => {})
  await page.goto('/shot/two-at-the-counter')
  await expect(page.getByText(/Fetching Two at the counter: [1-9]\d?%/)).toBeVisible()
  await page.getByRole('link', { name: 'Leave it' }).click()
  await page.getByRole('link', { name: 'Open Stuck second' }).click()
  await ready(page)
})

test('a tab closed a second after a change loses nothing', async ({ context, page }) => {
  await openDemo(page)
  await type(page, 'Across', 700)
  await page.waitForTimeout(1000)
  await page.close({ runBeforeUnload: false })
  const again = await context.newPage()
  await again.goto('/')
  await again
    .getByRole('region', { name: 'Shots on this machine' })
    .getByRole('link', { name: `Open ${NAME}` })
    .click()
  await ready(again)
  await expect(again.getByRole('textbox', { name: 'Across', exact: true })).toHaveValue('700')
})

test('what was changed the moment before is what is exported', async ({ page }) => {
  await openDemo(page)
  await page.getByRole('textbox', { name: 'Name of the shot' }).fill('Changed just now')
  await page.getByRole('link', { name: 'Export' }).click()
  await expect(page.getByRole('link', { name: 'Changed just now' })).toBeVisible()
})

test('a second tab is told and changes nothing', async ({ context, page }) => {
  await openDemo(page)
  const second = await context.newPage()
  await second.goto(page.url())
  await ready(second)
  await expect(second.getByText('open in another tab')).toBeVisible()
  await expect(second.getByRole('textbox', { name: 'Across', exact: true })).toBeDisabled()
})

test('a project file opens in another browser as the same shot, the same picture', async ({ browser, page }) => {
  await openDemo(page)
  await type(page, 'Turn', 12)
  await goTo(page, 40)
  const here = await stagePixels(page)
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const path = join(folder(), (await download).suggestedFilename())
  await (await download).saveAs(path)
  expect(path).toMatch(/Two at the counter\.jollyghost\.zip$/)

  const other = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const there = await other.newPage()
  await there.goto('/')
  await there.getByLabel('Project file').setInputFiles(path)
  await ready(there)
  await goTo(there, 40)
  expect(unlike(await stagePixels(there), here)).toBe(0)
  expect(unlike(await terminalFrame(path, 40), here)).toBe(0)
  expect(ghost('info', path)).toContain('Act B, right: clockmaker-right.mp4')
  await other.close()
})

test('a new shot from two files takes its size, rate and length from the first', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles([clip('empty-shop'), clip('clockmaker-left')])
  await ready(page)
  await expect(page.getByRole('textbox', { name: 'Name of the shot' })).toHaveValue('empty-shop')
  await expect(page.getByTestId('frame-number')).toHaveText('frame 1 of 180')
  const layers = page.getByRole('region', { name: 'Depth stack' }).locator('[data-layer]')
  await expect(layers).toHaveCount(2)
  await expect(layers.first()).toHaveAttribute('data-layer', 'clockmaker-left')
  await page.getByRole('button', { name: /New edge/ }).click()
  await expect(page.locator('[data-handle="Move the edge"]')).toBeVisible()
})

test.describe('what cannot be used is refused with a sentence, and nothing else changes', () => {
  const good = () => readFileSync(clip('clockmaker-left'))
  const takes: [string, () => Buffer | Uint8Array, RegExp][] = [
    [
      'words.mp4',
      () => Buffer.from('these are words, not a film. '.repeat(99)),
      /“words\.mp4” is nothing this program can read/,
    ],
    ['cut.mp4', () => good().subarray(0, 900_000), /“cut\.mp4”.*(cut short|no picture)/],
    ['empty.mp4', () => Buffer.alloc(0), /“empty\.mp4” is empty/],
  ]
  test('takes', async ({ page }) => {
    await page.goto('/')
    for (const [name, bytes, said] of takes) {
      const path = join(folder(), name)
      writeFileSync(path, bytes())
      await page.getByLabel('Takes for a new shot').setInputFiles(path)
      await expect(problem(page).filter({ hasText: said })).toBeVisible()
      await expect(page).toHaveURL(/\/$/)
      await expect(page.getByRole('region', { name: 'Shots on this machine' })).toHaveCount(0)
    }
  })

  test('take larger than the room that is left', async ({ page }) => {
    await page.goto('/')
    await page.evaluate(() => {
      navigator.storage.estimate = async () => ({ quota: 3_000_000, usage: 1_000_000 })
    })
    await page.getByLabel('Takes for a new shot').setInputFiles(clip('clockmaker-left'))
    await expect(problem(page)).toContainText(
      '“clockmaker-left.mp4” (4 MB) is larger than the room this browser has left (2 MB)',
    )
    await expect(page).toHaveURL(/\/$/)
    // Nor is a demo shot begun that would not fit.
    await demoCard(page).click()
    await expect(problem(page).filter({ hasText: NAME })).toContainText(
      /needs 11 MB, and this browser has 2 MB left\. Remove shots/,
    )
    await expect(page).toHaveURL(/\/$/)
  })

  const description = (change: object) =>
    strToU8(JSON.stringify({ format: 'jolly-ghost-project', version: 1, ...change }))
  const projects: [string, () => Uint8Array, RegExp][] = [
    ['picture.zip', () => strToU8('GIF89a'), /not a project file/],
    ['later.zip', () => zipSync({ 'project.json': description({ version: 7 }) }), /newer version/],
    [
      'number.zip',
      () => zipSync({ 'project.json': description({ id: 5, takes: [], shot: {} }) }),
      /id must be a string/,
    ],
    ['way-out.zip', () => zipSync({ '../x': strToU8('x'), 'project.json': description({}) }), /“\.\.\/x”/],
    [
      'swelling.zip',
      () => zipSync({ 'project.json': new Uint8Array(70_000_000) }, { level: 9 }),
      /larger than any shot/,
    ],
  ]
  test('project files', async ({ page }) => {
    await openDemo(page)
    await saved(page)
    await page.goto('/')
    for (const [name, bytes, said] of projects) {
      const path = join(folder(), name)
      writeFileSync(path, bytes())
      await page.getByLabel('Project file').setInputFiles(path)
      await expect(problem(page).filter({ hasText: said })).toBeVisible()
      await expect(page.getByRole('region', { name: 'Shots on this machine' }).getByRole('listitem')).toHaveCount(1)
    }
  })

  test('storage that is full is said at once, the last good state kept', async ({ page }) => {
    await openDemo(page)
    await type(page, 'Across', 640)
    await saved(page)
    await page.evaluate(() => {
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('full', 'QuotaExceededError')
      }
    })
    await type(page, 'Across', 10)
    await expect(problem(page).filter({ hasText: 'no room left' })).toBeVisible()
    await expect(page.getByTestId('saving')).toContainText('not saved')
    await page.reload()
    await ready(page)
    await expect(page.getByRole('textbox', { name: 'Across', exact: true })).toHaveValue('640')
  })
})

test('small frames that were kept and are damaged are made again', async ({ page }) => {
  await openDemo(page)
  await expect.poll(() => soundSheets(page)).toBe(3)
  expect(await damageSheets(page)).toBe(3)
  await page.reload()
  await ready(page)
  await expect.poll(() => soundSheets(page)).toBe(3)
})

test('every page is free of what keeps people out', async ({ page }) => {
  const check = async () => {
    const { violations } = await new AxeBuilder({ page }).disableRules(['color-contrast']).analyze()
    expect(violations.map(v => `${v.id}: ${v.nodes.map(n => n.html).join(' | ')}`)).toEqual([])
  }
  await page.goto('/')
  await expect(demoCard(page)).toBeVisible()
  await check()
  await openDemo(page)
  await check()
  await page.getByRole('link', { name: 'Export' }).click()
  await expect(page.getByRole('button', { name: 'Make the file' })).toBeVisible()
  await check()
  await page.goto('/guide')
  await expect(page.getByRole('region', { name: 'Shortcuts' })).toBeVisible()
  await check()
})
