// Plates made of takes in which somebody is, mended from another frame, and living beside footage.
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { folder } from './fixtures/files'
import { ghost, terminalFrame } from './fixtures/terminal'
import { begin, field, goTo, pixelAt, savedFrame, settled, stagePixels, unlike } from './fixtures/workbench'

async function command(page: Page, name: string): Promise<void> {
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('F1')
  await page.keyboard.type(name)
  await page.keyboard.press('Enter')
}

test('a plate is made of three takes, its gaps filled from another frame and kept as a still, and given their grain', async ({
  page,
}) => {
  await begin(page, ['clockmaker-left', 'clockmaker-right', 'empty-shop'])
  await goTo(page, 40)
  const man = await stagePixels(page)
  await page.keyboard.press('Control+a')
  await command(page, 'Make a plate')
  await expect(page.getByText('is among the takes')).toBeVisible()
  await page.getByRole('button', { name: /^Place Plate of/ }).click()
  await settled(page)
  const plate = await stagePixels(page)
  // He has stood at two places, at each in a third of the frames.
  for (const x of [330, 960]) expect(pixelAt(plate, x, 330)[0]).toBeLessThan(120)
  expect(unlike(plate, man)).toBeGreaterThan(50_000)

  // Its grain is that of the footage beside it, another one at each frame, and the same in a terminal.
  await page.getByRole('tab', { name: 'Looks' }).click()
  await page.getByRole('button', { name: 'Match the grain' }).click()
  await expect(field(page, 'Middle')).not.toHaveValue('2')
  const told = Number(await field(page, 'Middle').inputValue())
  expect(told).toBeGreaterThan(0.3)
  expect(told).toBeLessThan(2)
  await settled(page)
  expect(unlike(await stagePixels(page), plate)).toBeGreaterThan(100_000)
  await goTo(page, 41)
  const grained = await savedFrame(page)
  await command(page, 'Keep this picture')
  await expect(page.getByText(/ 42\.png” is among the takes/)).toBeVisible({ timeout: 30_000 })
  await expect(page.locator('[data-take$=" 42.png"]')).toContainText('1280×720, still')
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const path = join(folder(), 'plate.ghost')
  await (await download).saveAs(path)
  expect(unlike(grained, await terminalFrame(path, 41))).toBe(0)
  expect(ghost('info', path)).toContain('Plate of')
})

test('a plate of another place is named as one where somebody is cut out by it', async ({ page }) => {
  await begin(page, ['dusk-walk', 'clockmaker-left'])
  await page.locator('[data-layer="clockmaker-left"]').click()
  await page.keyboard.press('Shift+q')
  await expect(page.getByRole('button', { name: /^Plate cut-out/ })).toContainText('against dusk-walk.mp4')
  await page.getByRole('button', { name: 'Check the take by this plate' }).click()
  await expect(page.getByText('◆ Most of the picture is unlike the plate: it shows another place')).toBeVisible()
})

test('of two takes with somebody in both all the time, one man becomes two: his other self in the plate is named, and gone from a plate of both', async ({
  page,
}) => {
  await begin(page, ['clockmaker-left', 'clockmaker-right'])
  // Few frames are soon cut out.
  await field(page, 'Lasts').fill('12')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Cut somebody out' }).click()
  // Nobody chose this plate: without being asked, it is looked at as soon as all frames are ready.
  await expect(page.getByText('◆ Somebody stands in the plate')).toBeVisible()
  await settled(page)
  const hidden = await stagePixels(page)
  await page.getByRole('button', { name: 'Make a plate of both' }).click()
  await expect(page.getByRole('button', { name: /^Plate cut-out/ })).toContainText('against Plate of')
  await settled(page)
  const both = await stagePixels(page)
  // Where the set hid his other self there is a sleeve, as there is of himself.
  const [other, own] = [
    [303, 389],
    [780, 389],
  ] as const
  expect(pixelAt(hidden, ...other)[2]).toBeLessThan(80)
  expect(pixelAt(both, ...other)[2]).toBeGreaterThan(100)
  expect(pixelAt(both, ...own)).toEqual(pixelAt(hidden, ...own))
})

test('letters stand behind somebody whose set never stood empty, by five touches', async ({ page }) => {
  await begin(page, ['walk-across'])
  await goTo(page, 119)
  const take = await stagePixels(page)
  await page.getByRole('button', { name: 'New plate cut-out on walk-across' }).click()
  await expect(page.getByLabel('Plate', { exact: true })).toHaveValue('')
  await page.getByRole('button', { name: 'Make a plate of it' }).click()
  await page.getByRole('button', { name: 'Put the plate farthest' }).click()
  await settled(page)
  // Cut out and put back before the set that it was cut from, next to nothing is another picture.
  const back = await stagePixels(page)
  const far = back.rgb.filter((code, i) => Math.abs(code - take.rgb[i]!) > 24).length
  expect(far / back.rgb.length).toBeLessThan(0.002)

  await page.keyboard.press('Alt+t')
  await page.getByLabel('Type the letters').fill('GHOST')
  await page.keyboard.press('Escape')
  await settled(page)
  await expect(page.locator('[data-layer]')).toHaveCount(3)
  const lettered = await stagePixels(page)
  const [vest, letter] = [
    [620, 400],
    [834, 358],
  ] as const
  expect(pixelAt(lettered, ...vest)).toEqual(pixelAt(back, ...vest))
  expect(Math.min(...pixelAt(lettered, ...letter))).toBeGreaterThan(225)
  expect(Math.max(...pixelAt(back, ...letter))).toBeLessThan(160)
})
