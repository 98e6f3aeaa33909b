// Two takes made one in two touches: the light matched, the seam found; what is left is told, and the picture has no join.
import { expect, test } from '@playwright/test'
import { begin, goTo, openDemo, type Pixels, pixelAt, saved, savedFrame } from './fixtures/workbench'

/** Codes by which the picture steps from left to right of x, on the whole, over rows of plain wall and counter. */
function step(picture: Pixels, xAt: (y: number) => number): number {
  let sum = 0
  let count = 0
  for (const [from, to] of [
    [500, 640],
    [20, 60],
  ] as const) {
    for (let y = from; y < to; y += 2) {
      for (let c = 0; c < 3; c++) {
        const [left, right] = [-14, 14].map(by => pixelAt(picture, Math.round(xAt(y)) + by, y)[c]!)
        sum += right! - left!
        count++
      }
    }
  }
  return sum / count
}

test('the join between two takes goes in two touches', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 75)
  const left = page.getByRole('status').filter({ hasText: 'is left along it' })
  const most = async () => Number(/([\d.]+)% at most/.exec((await left.textContent()) ?? '')?.[1] ?? 100)
  await page.getByRole('button', { name: 'Measure it' }).click()
  await expect(left).toContainText('◆')
  const before = await most()
  await page.getByRole('button', { name: 'Match the light' }).first().click()
  await expect.poll(most).toBeLessThan(before / 1.8)
  await page.getByRole('button', { name: 'Find the seam' }).click()
  await expect(page.getByRole('textbox', { name: 'Feather in', exact: true })).not.toHaveValue('12')
  await expect(left).not.toContainText('◆')
  expect(await most()).toBeLessThan(0.8)
  // It is where it was found, and plain to see in the numbers; the picture goes on across it.
  const across = Number(await page.getByRole('textbox', { name: 'Across', exact: true }).inputValue())
  const turn = Number(await page.getByRole('textbox', { name: 'Turn', exact: true }).inputValue())
  const xAt = (y: number) => across - (y - 360) * Math.tan((turn * Math.PI) / 180)
  expect(across).toBeGreaterThan(540)
  expect(across).toBeLessThan(760)
  const joined = step(await savedFrame(page), xAt)
  // As the one take goes on there by itself.
  await page.getByRole('button', { name: 'Hide Act B, right' }).first().click()
  expect(Math.abs(joined - step(await savedFrame(page), xAt))).toBeLessThan(0.8)
  await page.keyboard.press('Control+z')
  await saved(page)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('textbox', { name: 'Feather in', exact: true })).toHaveValue('12')
})

test('a seam that bends becomes an outline between the two, with nothing of either cut off', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 75)
  const before = await savedFrame(page)
  await page.getByRole('button', { name: 'Match the light' }).first().click()
  const left = page.getByRole('status').filter({ hasText: 'is left along it' })
  await expect(left).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Let it bend' }).click()
  await expect(page.getByRole('button', { name: /^Outline/ }).first()).toBeVisible({ timeout: 30_000 })
  await expect(left).not.toContainText('◆')
  const bent = await savedFrame(page)
  // Both of them are there as they were, he on the right in another light.
  for (const [x, y] of [
    [440, 240],
    [430, 430],
    [880, 250],
    [870, 420],
  ] as const) {
    const [was, is] = [pixelAt(before, x, y), pixelAt(bent, x, y)]
    expect(Math.max(...was.map((v, c) => Math.abs(v - is[c]!)))).toBeLessThan(30)
  }
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /^Edge/ }).first()).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Feather in', exact: true })).toHaveValue('12')
})

test('two raw takes and an empty one become two of him, whatever is asked for while the last is still being done', async ({
  page,
}) => {
  await begin(page, ['clockmaker-right', 'clockmaker-left', 'empty-shop'])
  // What was chosen last lies nearest and hides all: its card says so.
  await page.getByRole('button', { name: 'Put it farthest' }).click()
  await page.locator('[data-bar="clockmaker-left"]').click({ position: { x: 250, y: 20 } })
  await goTo(page, 75)
  await page.getByRole('button', { name: 'New edge on clockmaker-left' }).click()
  await page.getByRole('button', { name: 'Match the light' }).click()
  await page.getByRole('button', { name: 'Find the seam' }).click()
  await expect(page.getByRole('button', { name: /^Held against what lies behind: \d+ of \d+ · Stop$/ })).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Feather in', exact: true })).not.toHaveValue('0')
  const left = page.getByRole('status').filter({ hasText: 'is left along it' })
  await expect(left).not.toContainText('◆')
  const two = await savedFrame(page)
  await page.getByRole('button', { name: 'Hide clockmaker-left' }).first().click()
  const one = await savedFrame(page)
  const apart = (x: number, y: number) =>
    Math.max(...pixelAt(one, x, y).map((v, c) => Math.abs(v - pixelAt(two, x, y)[c]!)))
  // An edge keeps its right as a rule; he stands on the left, and so it has been turned round.
  expect([apart(880, 250), apart(870, 420)]).toEqual([0, 0])
  expect(Math.max(apart(440, 240), apart(430, 430))).toBeGreaterThan(25)
})
