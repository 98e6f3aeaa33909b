// Takes, places, groups and sound: everything that is laid together before a matte is drawn.
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { clip, folder } from './fixtures/files'
import { wav } from './fixtures/wav'
import {
  begin,
  dragBy,
  field,
  goTo,
  handle,
  loseNearestTake,
  openDemo,
  ready,
  saved,
  settled,
  stagePixels,
  type,
  unlike,
} from './fixtures/workbench'

const take = (page: Page, name: string) => page.locator(`[data-take="${name}"]`)
const problem = (page: Page) => page.locator('[data-sonner-toast]')
const press = async (page: Page, keys: string) => {
  await page.getByTestId('ruler').focus()
  await page.keyboard.press(keys)
}

test('many files come in at once: films, a still, sound; what cannot be read is named and the rest comes', async ({
  page,
}) => {
  await begin(page, ['clockmaker-left'])
  const words = join(folder(), 'notes.txt')
  writeFileSync(words, 'remember the lamp')
  const still = join(folder(), 'poster.png')
  await page.getByTestId('ruler').focus()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save this frame as PNG' }).click()
  writeFileSync(still, readFileSync(await (await download).path()))
  await page
    .getByLabel('Bring in takes')
    .setInputFiles([
      words,
      still,
      wav('tone', 8000, 1, [{ hertz: 440, loud: 0.3 }]),
      clip('empty-shop'),
      clip('clockmaker-left'),
    ])
  await expect(problem(page)).toContainText('“notes.txt” is nothing this program can read')
  // The same film brought in twice is one.
  await expect(page.locator('[data-take]')).toHaveCount(4)
  await expect(take(page, 'poster.png')).toContainText('still')
  await expect(take(page, 'tone.wav')).toContainText('sound only')
  await expect(take(page, 'empty-shop.mp4')).toContainText('not placed')

  // The still is the frame that it was saved from.
  const shown = await stagePixels(page)
  await take(page, 'poster.png').getByRole('button', { name: 'Place poster.png' }).click()
  await expect(take(page, 'poster.png')).toContainText('in poster')
  await settled(page)
  expect(unlike(await stagePixels(page), shown)).toBe(0)
  await take(page, 'tone.wav').getByRole('button', { name: 'Place tone.wav' }).click()
  await expect(page.locator('[data-lane="tone"]')).toBeVisible()
  expect(unlike(await stagePixels(page), shown)).toBe(0)

  // What is used is not removed without a word; undone, it is all back.
  await take(page, 'poster.png').getByRole('button', { name: 'Remove poster.png' }).click()
  await expect(page.getByRole('alertdialog')).toContainText('It is used by the layer poster.')
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(take(page, 'poster.png')).toHaveCount(0)
  await expect(page.locator('[data-layer="poster"]')).toHaveCount(0)
  await press(page, 'Control+z')
  await expect(page.locator('[data-layer="poster"]')).toHaveCount(1)
  await settled(page)
  expect(unlike(await stagePixels(page), shown)).toBe(0)
})

test('a take whose file is gone is pointed at again', async ({ page }) => {
  await begin(page, ['clockmaker-left', 'empty-shop'])
  const shown = await stagePixels(page)
  await loseNearestTake(page)
  await expect(take(page, 'empty-shop.mp4')).toContainText('file missing')
  await page.getByLabel('File of empty-shop.mp4', { exact: true }).setInputFiles(clip('pendulum'))
  await expect(problem(page).first()).toContainText('its content differs')
  await page.getByLabel('File of empty-shop.mp4', { exact: true }).setInputFiles(clip('empty-shop'))
  await expect(take(page, 'empty-shop.mp4')).not.toContainText('file missing')
  await expect.poll(async () => unlike(await stagePixels(page), shown)).toBe(0)
})

test('files are pasted, and a take is carried from its panel into the lanes and onto the stage', async ({ page }) => {
  await begin(page, ['clockmaker-left'])
  const song = [...readFileSync(wav('tone', 8000, 1, [{ hertz: 440, loud: 0.3 }]))]
  await page.evaluate(bytes => {
    const data = new DataTransfer()
    data.items.add(new File([new Uint8Array(bytes)], 'tone.wav', { type: 'audio/wav' }))
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
  }, song)
  await expect(take(page, 'tone.wav')).toContainText('not placed')
  await take(page, 'tone.wav').dragTo(page.getByRole('region', { name: 'Lanes' }), {
    targetPosition: { x: 500, y: 80 },
  })
  await expect(page.locator('[data-lane="tone"]')).toBeVisible()
  expect(Number(await field(page, 'Begins at').inputValue())).toBeGreaterThan(40)
  await take(page, 'clockmaker-left.mp4').dragTo(page.getByTestId('stage'))
  await expect(page.locator('[data-lane="clockmaker-left, 2"]')).toBeVisible()
  await expect(field(page, 'Begins at')).toHaveValue('0')
})

test('a take that is removed while it plays leaves the rest playing', async ({ page }) => {
  await begin(page, ['empty-shop', 'clockmaker-left'])
  await press(page, 'Space')
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await take(page, 'clockmaker-left.mp4').getByRole('button', { name: 'Remove clockmaker-left.mp4' }).click()
  await page.getByRole('button', { name: 'Remove', exact: true }).click()
  await expect(page.locator('[data-layer]')).toHaveCount(1)
  await expect(page.getByTestId('frame-number')).toHaveText('frame 180 of 180')
  await expect(problem(page)).toHaveCount(0)
})

test('a layer is moved, scaled, turned, flipped and blended on the stage, meets the middle, and comes back', async ({
  page,
}) => {
  await openDemo(page)
  await goTo(page, 20)
  const before = await stagePixels(page)
  await page.getByRole('tab', { name: 'Place' }).click()
  await type(page, 'Scale', 50)
  await dragBy(page, page.locator('[data-handle^="Move the layer"]'), 90, 40)
  await settled(page)
  expect(Number(await field(page, 'Across').inputValue())).toBeGreaterThan(700)
  // With Alt it is the point it turns about that moves, and the picture stays.
  const moved = await stagePixels(page)
  await page.keyboard.down('Alt')
  await dragBy(page, page.locator('[data-handle^="Move the layer"]'), -30, 0)
  await page.keyboard.up('Alt')
  await settled(page)
  expect(unlike(await stagePixels(page), moved)).toBe(0)
  await page.keyboard.press('Control+z')
  await dragBy(page, handle(page, 'Turn the layer'), 60, 20)
  expect(Number(await field(page, 'Turn').inputValue())).toBeGreaterThan(20)
  await dragBy(page, handle(page, 'Scale from the top left'), -10, -60)
  expect(Number(await field(page, 'Scale').inputValue())).toBeGreaterThan(50)
  await page.getByRole('switch', { name: 'Flip left and right' }).click()
  await page.getByRole('combobox', { name: 'Blend' }).selectOption('screen')
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBeGreaterThan(20_000)
  // Arrows move it once it has been taken hold of by keyboard.
  const x = Number(await field(page, 'Across').inputValue())
  await page.locator('[data-place]').focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  expect(Number(await field(page, 'Across').inputValue())).toBeCloseTo(x + 11, 1)
  await page.getByRole('button', { name: 'Fit', exact: true }).last().click()
  await page.getByRole('switch', { name: 'Flip left and right' }).click()
  await page.getByRole('combobox', { name: 'Blend' }).selectOption('normal')
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)
})

test('layers are grouped, opened, changed inside, and taken apart with the picture unchanged', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 76)
  const before = await stagePixels(page)
  await page.locator('[data-bar="Act B, right"]').click({ position: { x: 300, y: 30 } })
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 300, y: 30 }, modifiers: ['Control'] })
  await press(page, 'Control+g')
  await expect(page.locator('[data-layer="Group"]')).toBeVisible()
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)

  await press(page, 'Control+Enter')
  await expect(page.getByRole('navigation', { name: 'Groups' })).toContainText('Group')
  await expect(page.locator('[data-layer]')).toHaveCount(2)
  await settled(page)
  await page.getByRole('region', { name: 'Depth stack' }).getByRole('button', { name: 'Hide Act B, right' }).click()
  await press(page, 'Control+Backspace')
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBeGreaterThan(100_000)
  await press(page, 'Control+z')
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)
  await press(page, 'Control+Shift+g')
  await expect(page.locator('[data-layer]')).toHaveCount(3)
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)
})

test('layers are copied into another shot, with their takes; other text is refused in words', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await openDemo(page)
  await page.locator('[data-bar="Act A, left"]').click({ position: { x: 300, y: 30 } })
  await press(page, 'Control+c')
  await saved(page)
  await page.getByRole('link', { name: 'Shots' }).click()
  await page.getByLabel('Takes for a new shot').setInputFiles([clip('empty-shop')])
  await ready(page)
  await goTo(page, 10)
  await press(page, 'Control+v')
  await expect(page.locator('[data-layer="Act A, left"]')).toBeVisible()
  await expect(field(page, 'Begins at')).toHaveValue('10')
  await expect(take(page, 'clockmaker-left.mp4')).toContainText('in Act A, left')
  await settled(page)
  await page.evaluate(() => navigator.clipboard.writeText('Dear aunt, the lamp is fine.'))
  await press(page, 'Control+v')
  await expect(problem(page)).toContainText('There are no layers on the clipboard')
  await expect(page.locator('[data-layer]')).toHaveCount(2)
})

test('sound is detached and slid on its own, muted, heard alone; the meter moves', async ({ page }) => {
  await begin(page, ['clockmaker-left'])
  await page.getByRole('tab', { name: 'Sound' }).click()
  await page.getByRole('button', { name: 'Detach', exact: true }).click()
  await expect(page.locator('[data-lane="clockmaker-left, sound"]')).toBeVisible()
  await page.locator('[data-bar="clockmaker-left, sound"]').click({ position: { x: 300, y: 30 } })
  await press(page, 'Alt+ArrowRight')
  await page.getByRole('tab', { name: 'Time' }).click()
  await expect(field(page, 'Begins at')).toHaveValue('1')
  const lit = () =>
    page.getByTestId('meter').evaluate(c => {
      const { data, width } = (c as HTMLCanvasElement).getContext('2d')!.getImageData(0, 3, 60, 1)
      let last = 0
      for (let x = 0; x < width; x++) if (data[x * 4 + 1]! > 150) last = x
      return last
    })
  await goTo(page, 34)
  await press(page, 'Space')
  await expect.poll(lit).toBeGreaterThan(15)
  await press(page, 'Space')
})

test('a take of another rate than the shot plays as fast as it was filmed, or frame for frame', async ({ page }) => {
  await begin(page, ['clockmaker-left'])
  await page.getByRole('button', { name: /\d+×\d+ · / }).click()
  const asked = page.getByRole('dialog')
  await asked.getByRole('textbox', { name: 'Frames a second' }).fill('60')
  await asked.getByRole('textbox', { name: 'Frames a second' }).press('Tab')
  await expect(asked).toContainText('Spans, keys, fades and marks stay at the second')
  await asked.getByRole('button', { name: 'Change', exact: true }).click()
  await expect(page.getByTestId('frame-number')).toContainText('of 368')
  await expect(field(page, 'Lasts')).toHaveValue('368')
  await page.getByRole('button', { name: 'Place clockmaker-left.mp4 at the playhead' }).click()
  await page.getByRole('menuitem', { name: /Frame for frame/ }).click()
  await expect(field(page, 'Speed')).toHaveValue('200')
  await expect(field(page, 'Lasts')).toHaveValue('184')
})

test('a card is carried from the lens to the wall, past what is in sight', async ({ page }) => {
  await begin(page, ['pendulum'])
  for (const count of [2, 4, 8, 16]) {
    await press(page, 'Control+a')
    await press(page, 'Control+d')
    await expect(page.locator('[data-layer]')).toHaveCount(count)
  }
  await page.getByLabel('Bring in takes').setInputFiles(clip('empty-shop'))
  await page.getByRole('button', { name: 'Place empty-shop.mp4' }).click()
  const cards = page.locator('[data-layer]')
  await expect(cards.first()).toHaveAttribute('data-layer', 'empty-shop')
  const head = (await page.getByLabel('empty-shop: choose, or drag to another depth').boundingBox())!
  await page.mouse.move(head.x + 100, head.y + 20)
  await page.mouse.down()
  await page.mouse.move(head.x + 100, 600, { steps: 10 })
  // At the edge the stack scrolls, as far as it goes and no farther.
  for (let i = 0; i < 60; i++) {
    await page.mouse.move(head.x + 100, 790 + (i % 2))
    await page.waitForTimeout(40)
  }
  await page.mouse.up()
  await expect(cards.last()).toHaveAttribute('data-layer', 'empty-shop')
  await expect(cards).toHaveCount(17)
})
