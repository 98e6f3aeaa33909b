// The lock-off report read, and its advice taken: the light matched in one touch, taken back, and there after a reload.
import { expect, test } from '@playwright/test'
import { goTo, openDemo, pixelAt, saved, savedFrame } from './fixtures/workbench'

test('a take that is darker than the plate is brought to its light from the report', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 75)
  const before = await savedFrame(page)
  await page.getByRole('link', { name: 'Lock-off report' }).click()
  const dark = page.getByRole('region', { name: 'clockmaker-right.mp4' })
  await expect(dark.getByText(/The light is even, \d\.\d% darker than the plate/)).toBeVisible()
  // A take without faults takes a line.
  await expect(page.getByRole('region', { name: 'empty-shop.mp4' }).getByText(/Nobody is there/)).toBeVisible()
  await expect(page.getByRole('main', { name: 'Lock-off report' }).getByRole('slider')).toHaveCount(1)
  await dark.getByRole('slider').press('ArrowRight')
  await expect(page.getByRole('complementary')).toContainText('clockmaker-right.mp4, frame 2')
  await dark.getByRole('button', { name: 'Match its light' }).click()
  await expect(dark.getByText('✓ done')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(dark.getByRole('button', { name: 'Match its light' })).toBeVisible()
  await page.keyboard.press('Control+Shift+z')
  await page.getByRole('link', { name: 'Back to the shot' }).click()
  await expect(page.getByRole('link', { name: /^Lock-off report: .*Light .*/ })).toContainText('Light')
  const after = await savedFrame(page)
  const sum = (of: number[]) => of.reduce((all, v) => all + v, 0)
  // The wall in the take on the right, and in the one on the left beside it.
  expect(sum(pixelAt(after, 760, 250)) / sum(pixelAt(before, 760, 250))).toBeGreaterThan(1.015)
  expect(pixelAt(after, 330, 60)).toEqual(pixelAt(before, 330, 60))
  await saved(page)
  await page.reload()
  await page.waitForSelector('main[data-ready=true]')
  await page.getByRole('link', { name: 'Lock-off report' }).click()
  // Nothing is looked through again, and what was done is known.
  await expect(page.getByRole('region', { name: 'clockmaker-right.mp4' }).getByText('✓ done')).toBeVisible()
})
