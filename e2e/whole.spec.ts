// All that a plate does for somebody, from raw takes to the film: report, advice, cut-out, a stroke, lettering behind, against what the generator knows.
import { expect, type Page, test } from '@playwright/test'
import { footageFrame } from '../demo/footage'
import { filmFrame } from './fixtures/film'
import {
  begin,
  dragBy,
  exportPart,
  field,
  goTo,
  handle,
  lookAt,
  makeNoMore,
  type Pixels,
  pixelAt,
  ready,
  saved,
  settled,
  stagePixels,
  type as typeIn,
} from './fixtures/workbench'

const FRAME = 80

const away = (a: Pixels, b: Pixels, i: number): number =>
  Math.max(...[0, 1, 2].map(c => Math.abs(a.rgb[i * 3 + c]! - b.rgb[i * 3 + c]!)))

/** What is on the stage with a layer hidden, or alone shown. */
async function without(page: Page, layer: string): Promise<Pixels> {
  await page.locator(`[data-layer="${layer}"]`).getByRole('button', { name: /^Hide/ }).click()
  await settled(page)
  const pixels = await stagePixels(page)
  await page.locator(`[data-layer="${layer}"]`).getByRole('button', { name: /^Show/ }).click()
  await settled(page)
  return pixels
}

test('from raw takes to a film: the light is matched as the report says, he is cut out, a stroke corrects, letters stand behind him', async ({
  page,
}) => {
  await begin(page, ['empty-shop', 'clockmaker-right'])
  await goTo(page, FRAME)
  const dark = await stagePixels(page)
  await page.getByRole('link', { name: 'Lock-off report' }).click()
  const darker = page.getByRole('region', { name: 'clockmaker-right.mp4' })
  await expect(darker.getByText(/The light is even, \d\.\d% darker than the plate/)).toBeVisible()
  // A take without faults takes a line.
  await expect(page.getByRole('region', { name: 'empty-shop.mp4' }).getByText(/Nobody is there/)).toBeVisible()
  await expect(page.getByRole('main', { name: 'Lock-off report' }).getByRole('slider')).toHaveCount(1)
  await darker.getByRole('slider').press('ArrowRight')
  await expect(page.getByRole('complementary')).toContainText('clockmaker-right.mp4, frame 2')
  await darker.getByRole('button', { name: 'Match its light' }).click()
  await expect(darker.getByText('✓ done')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(darker.getByRole('button', { name: 'Match its light' })).toBeVisible()
  await page.keyboard.press('Control+Shift+z')
  await saved(page)
  // Nothing is looked through again after a reload, and what was done is known.
  await page.reload()
  await expect(darker.getByText('✓ done')).toBeVisible()
  await page.getByRole('link', { name: 'Back to the shot' }).click()
  await ready(page)
  await expect(page.getByRole('link', { name: /^Lock-off report: .*Light .*/ })).toContainText('Light')

  await page.locator('[data-layer="clockmaker-right"]').click()
  await goTo(page, FRAME)
  const lit = await stagePixels(page)
  // The wall beside him.
  const sum = (of: Pixels) => pixelAt(of, 760, 250).reduce((all, v) => all + v, 0)
  expect(sum(lit) / sum(dark)).toBeGreaterThan(1.015)
  await page.keyboard.press('Shift+q')
  await expect(page.getByRole('button', { name: /^Plate cut-out/ })).toContainText('against empty-shop.mp4')
  await makeNoMore(page)
  await settled(page)

  await expect(page.getByText('By this plate nothing is in the way of a clean cut.')).toBeVisible()

  // A stroke over the papers on the counter keeps them, too.
  expect(await lookAt(page, 'Matte', 560, 496)).toEqual([0, 0, 0])
  await page.keyboard.press('p')
  await expect(page.getByTestId('paint')).toBeVisible()
  const area = (await page.getByTestId('picture').boundingBox())!
  const at = (x: number, y: number) => [area.x + (x / 1280) * area.width, area.y + (y / 720) * area.height] as const
  await page.mouse.move(...at(620, 492))
  await page.mouse.down()
  await page.mouse.move(...at(700, 492), { steps: 5 })
  await page.mouse.up()
  await page.keyboard.press('p')
  await settled(page)
  expect((await lookAt(page, 'Matte', 660, 492))[0]).toBeGreaterThan(250)

  // Letters as large as the wall, and behind him by one step.
  await page.keyboard.press('w')
  await page.keyboard.press('Shift+T')
  await expect(page.getByRole('textbox', { name: 'Type the letters' })).toBeFocused()
  await page.keyboard.type('LATE')
  await page.keyboard.press('Escape')
  await typeIn(page, 'Size', 300)
  await dragBy(page, handle(page, 'Move the layer; with Alt the point it turns about'), 60, -30)
  // Arrows alone go on moving them.
  await page.keyboard.press('Alt+Shift+ArrowDown')
  await page.getByRole('toolbar', { name: 'Views' }).getByRole('button', { name: 'Picture', exact: true }).click()
  await settled(page)
  const lettered = await without(page, 'clockmaker-right')
  const plate = await without(page, 'LATE')
  const film = await filmFrame(await exportPart(page, FRAME + 1, FRAME + 3), 0)

  // Where he is the film shows him, lit like the plate; where he is not and letters are, letters; the papers are before them, too.
  const { matte } = footageFrame('clockmaker-right', FRAME)
  const counts = { him: 0, letters: 0, wrong: 0 }
  matte.forEach((share, i) => {
    if (share > 0.98) {
      counts.him++
      if (away(film.pixels, lit, i) > 30) counts.wrong++
    } else if (share < 0.02 && away(lettered, plate, i) > 60) {
      counts.letters++
      if (away(film.pixels, lettered, i) > 60) counts.wrong++
    }
  })
  expect(counts.him).toBeGreaterThan(20_000)
  expect(counts.letters).toBeGreaterThan(20_000)
  expect(counts.wrong / (counts.him + counts.letters)).toBeLessThan(0.03)
  expect(await field(page, 'First frame').inputValue()).toBe(String(FRAME + 1))
})
