// Everything at once: what the stage shows of turned, blended, repeated, slowed, looped and grouped layers is what the
// terminal makes of the saved project, bit for bit.
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { folder } from './fixtures/files'
import { soundLate } from './fixtures/sound'
import { terminalFrame } from './fixtures/terminal'
import { exportPart, goTo, openDemo, saved, settled, stagePixels, type, typeAsked, unlike } from './fixtures/workbench'

test('stage and terminal agree on time, place, looks, fades, blends, copies and groups, and on their sound', async ({
  page,
}) => {
  await openDemo(page)
  const press = async (keys: string) => {
    await page.getByTestId('ruler').focus()
    await page.keyboard.press(keys)
  }
  const choose = (name: string, modifiers: 'Control'[] = []) =>
    page.locator(`[data-bar="${name}"]`).click({ position: { x: 250, y: 30 }, modifiers })

  // Nearest: turned, small, seen through, twice more behind itself.
  await choose('Act B, right')
  await page.getByRole('tab', { name: 'Place' }).click()
  for (const [label, value] of [
    ['Scale', 70],
    ['Turn', 12],
    ['Opacity', 80],
  ] as const)
    await type(page, label, value)
  await page.getByRole('combobox', { name: 'Blend' }).selectOption('lighten')
  await press('r')
  await typeAsked(page, 'Copies', 2)
  await typeAsked(page, 'Each later by', 9)
  await typeAsked(page, 'Each shifted across', -70)
  await typeAsked(page, 'Each as strong as the one before', 60)
  await page.getByRole('button', { name: 'Keep the row' }).click()

  // In the middle: slow, its frames mixed, coming in and going out.
  await choose('Act A, left')
  await press('s')
  await typeAsked(page, 'Speed (negative: backwards)', 40)
  await page.getByRole('dialog').getByRole('switch', { name: 'Mix neighbouring frames when slow' }).click()
  await page.getByRole('button', { name: 'Set', exact: true }).click()
  await page.getByRole('tab', { name: 'Time' }).click()
  await type(page, 'Fade in', 20)
  // Softly without what the nearest covers.
  await press('Shift+Y')
  await page.getByRole('radio', { name: 'Takes away' }).click()
  await type(page, 'Feather out', 14)
  await expect(page.getByText('as covered by Act B, right')).toBeVisible()

  // Farthest: a loop that dissolves into itself, faster.
  await choose('Empty shop')
  await press('l')
  await typeAsked(page, 'Last frame', 24)
  await page.getByRole('radio', { name: 'Dissolve' }).click()
  await page.getByRole('button', { name: 'Loop', exact: true }).click()
  await type(page, 'Speed', 130)
  await page.getByRole('tab', { name: 'Looks' }).click()
  await page.getByRole('button', { name: 'Add a look' }).click()
  await page.getByRole('menuitem', { name: 'Light' }).click()
  await type(page, 'Exposure', -0.7)
  await type(page, 'Blue', 0.4)

  // The nearest once more: its edge an outline that moves, turns and blurs.
  await choose('Act B, right')
  await page.getByRole('button', { name: /^Edge/ }).first().click()
  await page.getByRole('radio', { name: 'Outline' }).click()
  await type(page, 'Feather out', 9)
  await type(page, 'Shutter', 180)
  await goTo(page, 20)
  await page.getByRole('button', { name: 'Set a key for across' }).click()
  await goTo(page, 100)
  await type(page, 'Across', 400)

  await choose('Act B, right')
  await choose('Act A, left', ['Control'])
  await press('Control+g')
  await expect(page.locator('[data-layer]')).toHaveCount(2)
  await settled(page)
  await saved(page)

  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const file = join(folder(), 'all.jollyghost.zip')
  await (await download).saveAs(file)
  for (const frame of [23, 90]) {
    await goTo(page, frame)
    expect(unlike(await stagePixels(page), await terminalFrame(file, frame))).toBe(0)
  }
  const film = await exportPart(page, 61, 66)
  expect(Math.abs(await soundLate(film, file, 60, 6))).toBeLessThan(20)
})
