// What hand and eye rely on: keys that keep out of typing, focus, the loupe, views, lights.
import { expect, test } from '@playwright/test'
import {
  field,
  frameNumber,
  goTo,
  handle,
  openDemo,
  pixelAt,
  ready,
  saved,
  settled,
  stagePixels,
  view,
} from './fixtures/workbench'

test('no shortcut fires while somebody types, and numbers obey keys, drags and double clicks', async ({ page }) => {
  await openDemo(page)
  const name = page.getByRole('textbox', { name: 'Name of the shot' })
  await name.fill('')
  await name.pressSequentially('Ho h W E k')
  await page.keyboard.press('Space')
  await page.keyboard.press('End')
  expect(await frameNumber(page)).toBe(1)
  await page.keyboard.press('Escape')
  await expect(name).toHaveValue('Two at the counter')

  const across = field(page, 'Across')
  await across.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Shift+ArrowDown')
  await expect(across).toHaveValue('645')
  await page.keyboard.press('Tab')
  const label = page.getByText('Grow', { exact: true })
  const box = (await label.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 5)
  await page.mouse.down()
  await page.mouse.move(box.x + 25, box.y + 5, { steps: 5 })
  await page.mouse.up()
  await expect(field(page, 'Grow')).toHaveValue('20')
  await label.dblclick()
  await expect(field(page, 'Grow')).toHaveValue('0')
  await field(page, 'Strength').fill('900')
  await page.keyboard.press('Enter')
  await expect(field(page, 'Strength')).toHaveValue('100')
  // One step for setting back, one for the drag; the arrows are one where they follow each other quickly.
  const undo = page.getByRole('button', { name: 'Undo' })
  await undo.click()
  await expect(field(page, 'Grow')).toHaveValue('20')
  await undo.click()
  await expect(field(page, 'Grow')).toHaveValue('0')
  await expect(async () => {
    if ((await across.inputValue()) !== '652') await undo.click()
    await expect(across).toHaveValue('652', { timeout: 1000 })
  }).toPass()
})

test('a loupe follows the hand while something is dragged, and only then', async ({ page }) => {
  await openDemo(page)
  const loupe = page.getByTestId('stage').locator('canvas[aria-hidden=true]')
  await expect(loupe).toHaveCount(0)
  const box = (await handle(page, 'Move the edge').boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + 40, box.y + 10, { steps: 4 })
  await expect(loupe).toBeVisible()
  await page.mouse.up()
  await expect(loupe).toHaveCount(0)
})

test('the views show the matte, the tint, the cut-out and the uncut layer', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 76)
  const look = async (name: string) => {
    await view(page, name).click()
    await settled(page)
    return stagePixels(page)
  }
  const picture = await look('Picture')
  const uncut = await look('Uncut')
  const tint = await look('Tint')
  const matte = await look('Matte')
  const cutOut = await look('Cut-out')
  const left = [430, 300] as const
  const right = [880, 300] as const
  expect(pixelAt(matte, ...left)).toEqual([0, 0, 0])
  expect(pixelAt(matte, ...right)).toEqual([255, 255, 255])
  for (const seen of [uncut, tint, cutOut]) expect(pixelAt(seen, ...right)).toEqual(pixelAt(picture, ...right))
  // Left of the seam the uncut layer shows its own wall, the tint greens it, and the cut-out has nothing.
  expect(pixelAt(uncut, ...left)).not.toEqual(pixelAt(picture, ...left))
  const [red, green] = pixelAt(tint, ...left)
  expect(green! - red!).toBeGreaterThan(pixelAt(uncut, ...left)[1]! - pixelAt(uncut, ...left)[0]!)
  expect(pixelAt(cutOut, ...left)).toEqual([0, 0, 0])
  await page.keyboard.press('w')
  await expect(view(page, 'Uncut')).toHaveAttribute('aria-pressed', 'true')
})

test('the house lights stay as they were left', async ({ page }) => {
  await openDemo(page)
  const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor)
  expect(await ground()).toBe('rgb(20, 20, 20)')
  await page.getByRole('button', { name: 'House lights' }).click()
  await page.reload()
  expect(await ground()).toBe('rgb(221, 221, 221)')
})

test('all that surrounds the picture folds by a key, stays so, and comes back as it was', async ({ page }) => {
  await openDemo(page)
  const picture = page.getByTestId('picture')
  const width = async () => (await picture.boundingBox())!.width
  const wide = await width()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('f')
  await expect.poll(width).toBeGreaterThan(wide * 1.4)
  await saved(page)
  await page.reload()
  await ready(page)
  await expect.poll(width).toBeGreaterThan(wide * 1.4)
  await page.keyboard.press('f')
  await expect.poll(width).toBeLessThan(wide * 1.1)
  // What was laid out while there was no room for it is drawn now.
  const strip = page.getByRole('region', { name: 'Takes' }).locator('canvas').first()
  const drawn = () =>
    strip.evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas
      if (width === 0) return 0
      const copy = new OffscreenCanvas(width, height).getContext('2d')!
      copy.drawImage(canvas, 0, 0)
      return (
        copy.getImageData(0, 0, width, height).data.filter((v, i) => i % 4 === 3 && v === 255).length / width / height
      )
    })
  await expect.poll(drawn).toBeGreaterThan(0.9)
})

test('letters typed and left before their font is there are set all the same', async ({ page }) => {
  await openDemo(page)
  await page.route(/woff2/, async route => {
    await new Promise(done => setTimeout(done, 800))
    await route.continue()
  })
  // The second time the font is known, but its sheet still has to come.
  for (const word of ['EARLY', 'AGAIN']) {
    await page.getByTestId('ruler').focus()
    await page.keyboard.press('Shift+T')
    await page.keyboard.type(word)
    await page.keyboard.press('Escape')
    await expect(page.locator(`[data-layer="${word}"]`)).toBeVisible()
    await expect(page.getByRole('textbox', { name: 'Type the letters' })).toHaveCount(0)
  }
})
