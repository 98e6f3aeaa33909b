// Repeating time: a stutter, a row of copies, a loop in a frozen room; each from the raw take to the film.
import { expect, type Page, test } from '@playwright/test'
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
  makeNoMore,
  settled,
  stagePixels,
  type,
  typeAsked,
  unlike,
} from './fixtures/workbench'

const press = async (page: Page, keys: string) => {
  await page.getByTestId('ruler').focus()
  await page.keyboard.press(keys)
}

const card = (page: Page, name: string) => page.locator(`[data-layer="${name}"]`)

async function sameAsDemo(page: Page, demo: string, frames: readonly number[]): Promise<void> {
  for (const frame of frames) {
    await goTo(page, frame)
    expect(unlike(await stagePixels(page), await terminalFrame(demo, frame))).toBe(0)
  }
}

/** A part of the film, its last picture and its sound against those of the shot. */
async function filmed(page: Page, demo: string, first: number, last: number): Promise<void> {
  await goTo(page, last)
  const picture = await stagePixels(page)
  const film = await exportPart(page, first + 1, last + 1)
  const frames = last - first + 1
  const end = await filmFrame(film, (frames - 1) / 30)
  expect(end.frames).toBe(frames)
  expect(closestTo(end.pixels, picture)).toBeGreaterThan(30)
  expect(Math.abs(await soundLate(film, demo, first, frames))).toBeLessThan(20)
}

test('Stuck second: the bell is struck six times', async ({ page }) => {
  await begin(page, ['counter-bell'])
  await goTo(page, 40)
  await press(page, 't')
  await typeAsked(page, 'Frames to repeat', 10)
  await typeAsked(page, 'How many times', 6)
  await page.getByRole('button', { name: 'Stutter', exact: true }).click()
  await expect(page.locator('[data-layer]')).toHaveCount(8)
  await lengthen(page, 170)
  await sameAsDemo(page, 'stuck-second', [45, 98])
  // Each repeat is a layer like any other.
  await page.locator('[data-bar="counter-bell, 3"]').click({ position: { x: 14, y: 30 } })
  await press(page, 'Alt+ArrowRight')
  await expect(field(page, 'Begins at')).toHaveValue('61')
  await press(page, 'Control+z')
  await expect(field(page, 'Begins at')).toHaveValue('60')
  await filmed(page, 'stuck-second', 38, 79)
})

test('Seven clockmakers: one row, opened again and changed as one', async ({ page }) => {
  await begin(page, ['walk-across'])
  await lengthen(page, 420)
  await press(page, 'Control+d')
  await expect(page.locator('[data-layer]')).toHaveCount(2)
  await card(page, 'walk-across').getByRole('button', { name: 'Open walk-across' }).click()
  await press(page, 'Home')
  await press(page, 'Shift+F')
  await type(page, 'Lasts', 420)
  await card(page, 'walk-across, 2').getByRole('button', { name: 'Open walk-across, 2' }).click()
  // The frozen frame behind him shows the shop empty: it is the plate.
  await press(page, 'Shift+Q')
  await expect(page.getByRole('button', { name: /^Plate cut-out/ })).toContainText('against walk-across.mp4')
  await makeNoMore(page)
  // What goes on above his head, the hands of the clocks, is kept out by hand.
  await press(page, 'Shift+E')
  await page.getByRole('radio', { name: 'Keeps only' }).click()
  await type(page, 'Down', 192)
  await type(page, 'Turn', 90)
  await press(page, 'r')
  await typeAsked(page, 'Copies', 6)
  await typeAsked(page, 'Each later by', 30)
  await page.getByRole('button', { name: 'Keep the row' }).click()
  await sameAsDemo(page, 'seven-clockmakers', [232])
  const seven = await stagePixels(page)

  await press(page, 'r')
  await typeAsked(page, 'Copies', 2)
  await page.getByRole('button', { name: 'Leave it' }).click()
  await settled(page)
  expect(unlike(await stagePixels(page), seven)).toBe(0)
  await press(page, 'r')
  await page.getByRole('button', { name: 'No copies' }).click()
  await settled(page)
  expect(unlike(await stagePixels(page), seven)).toBeGreaterThan(5000)
  await press(page, 'Control+z')
  await settled(page)
  expect(unlike(await stagePixels(page), seven)).toBe(0)
})

test('The pendulum: a frozen room in which one thing goes on', async ({ page }) => {
  await begin(page, ['pendulum'])
  await lengthen(page, 240)
  await press(page, 'Control+d')
  await card(page, 'pendulum').getByRole('button', { name: 'Open pendulum' }).click()
  await goTo(page, 81)
  await press(page, 'Shift+F')
  // Its bar is pulled to the end of the shot, which it meets.
  const end = (await page.locator('[data-bar="pendulum"]').locator('[data-end=to]').boundingBox())!
  const lanes = (await page.getByTestId('ruler').boundingBox())!
  await page.mouse.move(end.x + 4, end.y + 20)
  await page.mouse.down()
  await page.mouse.move(lanes.x + lanes.width - 60, end.y + 20, { steps: 8 })
  await page.mouse.move(lanes.x + lanes.width - 17, end.y + 20, { steps: 4 })
  await expect(page.getByTestId('meeting')).toBeVisible()
  await page.mouse.up()
  await expect(field(page, 'Lasts')).toHaveValue('240')

  await card(page, 'pendulum, 2').getByRole('button', { name: 'Open pendulum, 2' }).click()
  // The question stands beside the picture, with the panel folded away too, and what it would do is seen at once.
  await press(page, '3')
  await press(page, 'l')
  await typeAsked(page, 'Last frame', 45)
  await expect(page.locator('[data-bar="pendulum, 2"]')).toContainText('loop')
  const question = (await page.getByRole('dialog').boundingBox())!
  const picture = (await page.getByTestId('picture').boundingBox())!
  expect(question.x).toBeGreaterThanOrEqual(picture.x + picture.width)
  await press(page, 'Escape')
  await expect(page.locator('[data-bar="pendulum, 2"]')).not.toContainText('loop')
  await expect.poll(async () => (await page.getByLabel('Depth stack').boundingBox())!.width).toBeLessThan(40)
  await press(page, '3')
  await press(page, 'l')
  await typeAsked(page, 'Last frame', 45)
  await page.getByRole('button', { name: 'Loop', exact: true }).click()
  await expect(field(page, 'Lasts')).toHaveValue('240')
  await press(page, 'Shift+O')
  for (const [label, value] of [
    ['Feather in', 10],
    ['Feather out', 10],
    ['Across', 790],
    ['Down', 390],
    ['Width', 190],
    ['Height', 200],
  ] as const)
    await type(page, label, value)
  await sameAsDemo(page, 'the-pendulum', [44, 100])
  await filmed(page, 'the-pendulum', 30, 59)
})
