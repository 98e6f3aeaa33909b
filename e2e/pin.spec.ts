// Letters pinned to something flat that moves: by four corners, riding on what is inside of them, the same in a terminal and after a reload.
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { folder } from './fixtures/files'
import { terminalFrame } from './fixtures/terminal'
import {
  goTo,
  look,
  openDemo,
  type Pixels,
  pixelAt,
  ready,
  saved,
  savedFrame,
  settled,
  unlike,
} from './fixtures/workbench'

/** The crate on the trolley at frame 90, px of the shot. */
const CRATE = {
  'top left': [412, 405],
  'top right': [530, 412],
  'bottom right': [530, 520],
  'bottom left': [412, 525],
} as const

async function dragCorner(page: Page, name: string, [x, y]: readonly [number, number]): Promise<void> {
  const area = (await page.getByTestId('picture').boundingBox())!
  const scale = area.width / 1280
  const handle = (await page.locator(`[data-handle="Move the ${name} corner"] circle`).first().boundingBox())!
  await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2)
  await page.mouse.down()
  await page.mouse.move(area.x + x * scale - 5, area.y + y * scale - 5, { steps: 3 })
  await page.mouse.move(area.x + x * scale, area.y + y * scale)
  await page.mouse.up()
}

/** What is nearly white among px of a part of the picture. */
function whiteIn(picture: Pixels, left: number, top: number, right: number, bottom: number): number {
  let count = 0
  for (let y = top; y < bottom; y += 2)
    for (let x = left; x < right; x += 2) if (pixelAt(picture, x, y).every(v => v > 225)) count++
  return count
}

const corner = async (page: Page, name: string) =>
  Number(await page.getByRole('textbox', { name }).first().inputValue())

test('letters are pinned to a crate, ride on it through the picture, and lie there in a terminal', async ({ page }) => {
  await openDemo(page, 'Trolley')
  await goTo(page, 90)
  await page.locator('[data-bar="The trolley, cut out"]').click({ position: { x: 300, y: 20 } })
  await page.keyboard.press('Shift+t')
  await page.getByLabel('Type the letters').fill('FRAGILE')
  await page.keyboard.press('Escape')
  await page.getByRole('tab', { name: 'Place' }).click()
  await page.getByRole('button', { name: 'Pin its corners' }).click()
  const before = await look(page, 'Picture')
  for (const [name, to] of Object.entries(CRATE)) await dragCorner(page, name, to)
  await settled(page)
  expect(unlike(before, await look(page, 'Picture'))).toBeGreaterThan(1000)
  // As it was pinned, it reaches all over the crate, and nowhere else.
  const here = await savedFrame(page)
  const onCrate = whiteIn(here, 412, 405, 530, 525)
  expect(onCrate).toBeGreaterThan(300)
  const from = await corner(page, 'Top left')

  await page.keyboard.press('Alt+s')
  const marks = page.locator('[data-keys="Corners"] [data-key]')
  await expect.poll(() => marks.count()).toBeGreaterThan(1)
  // Also where the crate has left the picture: nothing was lost.
  await expect(page.getByText(/It rides over frames/)).toBeHidden()
  await goTo(page, 130)
  // The trolley rolls on by 10.6 px a frame.
  const gone = (await corner(page, 'Top left')) - from
  expect(Math.abs(gone - 424)).toBeLessThan(2)
  await saved(page)
  const there = await savedFrame(page)
  const shift = Math.round(gone)
  expect(Math.abs(whiteIn(there, 412 + shift, 405, 530 + shift, 525) / onCrate - 1)).toBeLessThan(0.1)

  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as file' }).click()
  const path = join(folder(), 'pin.ghost')
  await (await download).saveAs(path)
  expect(unlike(there, await terminalFrame(path, 130))).toBe(0)
  await page.reload()
  await ready(page)
  await goTo(page, 130)
  expect(unlike(there, await savedFrame(page))).toBe(0)

  // More letters go on as flat beyond those that were pinned, which stay; both are one step.
  await page.locator('[data-bar="FRAGILE"]').click({ position: { x: 300, y: 20 } })
  await page.getByRole('tab', { name: 'Letters' }).click()
  await page.getByRole('radio', { name: 'left' }).click()
  await expect.poll(async () => unlike(there, await savedFrame(page))).toBeGreaterThan(1000)
  await settled(page)
  const left = await savedFrame(page)
  await page.getByRole('textbox', { name: 'What the letters say' }).fill('FRAGILE GLASS')
  const edge = 530 + shift
  const beyond = async () => {
    await settled(page)
    return unlike(left, await savedFrame(page))
  }
  await expect.poll(beyond).toBeGreaterThan(1000)
  const more = await savedFrame(page)
  expect(whiteIn(more, edge + 100, 380, Math.min(1280, edge + 250), 550)).toBeGreaterThan(100)
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Control+z')
  await settled(page)
  expect(unlike(left, await savedFrame(page))).toBe(0)
  // Nothing new comes of what was taken back: it can be done again.
  await page.waitForTimeout(300)
  await page.keyboard.press('Control+Shift+z')
  await settled(page)
  expect(unlike(more, await savedFrame(page))).toBe(0)
})

test('corners that nothing flat has are told, and taken back; a layer with a matte is pinned as a group', async ({
  page,
}) => {
  await openDemo(page, 'Trolley')
  await goTo(page, 90)
  await page.locator('[data-bar="HALF PAST"]').click({ position: { x: 500, y: 20 } })
  await page.getByRole('tab', { name: 'Place' }).click()
  await page.getByRole('button', { name: 'Pin its corners' }).click()
  await expect(page.getByText('both are in a group now')).toBeVisible()
  await dragCorner(page, 'top left', [1100, 650])
  await expect(page.getByText('Nothing flat looks like that')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Nothing flat looks like that')).toBeHidden()
  await page.getByRole('button', { name: 'Take the pins out' }).click()
  await expect(page.locator('[data-pin]')).toBeHidden()
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-pin]')).toBeVisible()
  // On the wall, which stands still, there is nothing to ride on.
  await goTo(page, 0)
  await page.getByRole('button', { name: 'Ride on the surface' }).click()
  await expect(page.getByText('stands still')).toBeVisible()
  await expect(page.locator('[data-keys="Corners"]')).toBeHidden()
})
