// Two acts out of one take, from the raw file to the film.
import { expect, test } from '@playwright/test'
import { filmFrame } from './fixtures/film'
import { soundLate } from './fixtures/sound'
import { terminalFrame } from './fixtures/terminal'
import {
  begin,
  closestTo,
  exportPart,
  field,
  goTo,
  lengthen,
  pixelAt,
  settled,
  stagePixels,
  type,
  unlike,
} from './fixtures/workbench'

test('One long take: two acts are found, kept, placed together and cut along a line', async ({ page }) => {
  await begin(page, ['one-long-take'])
  await page.getByRole('button', { name: 'Look at one-long-take.mp4 alone' }).click()
  await expect(page.getByRole('region', { name: 'The take alone' })).toBeVisible()
  for (const [from, to, name] of [
    [192, 287, 'On the right'],
    [0, 95, 'On the left'],
  ] as const) {
    await goTo(page, from)
    await page.getByRole('button', { name: 'In here' }).click()
    await goTo(page, to)
    await page.getByRole('button', { name: 'Out here' }).click()
    await page.getByRole('button', { name: 'Keep as an act' }).click()
    await page.getByRole('textbox', { name: 'Name of the act' }).last().fill(name)
  }
  await page.getByRole('button', { name: 'Place all 2, starting together' }).click()
  await expect(page.locator('[data-layer]')).toHaveCount(3)

  // The whole take has done its work.
  await page.locator('[data-layer="one-long-take"]').getByRole('button', { name: 'Open one-long-take' }).click()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Delete')
  await expect(page.locator('[data-layer]')).toHaveCount(2)
  await lengthen(page, 96)

  await page.locator('[data-layer="On the right"]').getByRole('button', { name: 'Open On the right' }).click()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+E')
  for (const [label, value] of [
    ['Across', 646],
    ['Feather in', 16],
    ['Feather out', 16],
  ] as const)
    await type(page, label, value)
  expect(await field(page, 'Down').inputValue()).toBe('360')

  for (const frame of [40, 95]) {
    await goTo(page, frame)
    expect(unlike(await stagePixels(page), await terminalFrame('one-long-take', frame))).toBe(0)
  }
  const picture = await stagePixels(page)
  const film = await exportPart(page, 25, 96)
  const last = await filmFrame(film, 71 / 30)
  expect(last.frames).toBe(72)
  expect(closestTo(last.pixels, picture)).toBeGreaterThan(30)
  expect(Math.abs(await soundLate(film, 'one-long-take', 24, 72))).toBeLessThan(20)
})

test('the report finds both acts and parts the take into them; the man cut out of one stands in the other, by six touches', async ({
  page,
}) => {
  await begin(page, ['one-long-take'])
  await expect(page.getByRole('button', { name: 'Cut somebody out' })).toBeVisible()
  await page.getByRole('link', { name: /^Lock-off/ }).click()
  await page.getByRole('button', { name: 'Cut into these acts' }).click({ timeout: 60_000 })
  await page.getByRole('link', { name: 'Back to the shot' }).click()
  await expect(page.locator('[data-layer]')).toHaveCount(2)
  const left = await stagePixels(page)
  await page.locator('[data-layer="Act 1"]').getByRole('button', { name: 'Hide Act 1' }).click()
  await settled(page)
  const right = await stagePixels(page)
  await page.keyboard.press('Control+z')
  // Few frames are soon cut out.
  await type(page, 'Lasts', 12)
  await page.getByRole('button', { name: 'Cut somebody out' }).click()
  // An act shows somebody: it is no plate.
  await expect(page.getByLabel('Plate', { exact: true })).toHaveValue('')
  await page.getByRole('button', { name: 'Make a plate of it' }).click()
  await expect(page.getByText('All 12 frames are ready')).toBeVisible({ timeout: 60_000 })
  await settled(page)
  const both = await stagePixels(page)
  for (const [picture, x] of [
    [left, 418],
    [right, 879],
  ] as const)
    for (const y of [330, 390, 450]) expect(pixelAt(both, x, y)).toEqual(pixelAt(picture, x, y))
})
