// Outlines drawn by hand: what they keep, how they change, and how they move in time.
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { encode } from 'fast-png'
import {
  begin,
  dragBy,
  field,
  frameNumber,
  goTo,
  handle,
  look,
  lookAt,
  pixelAt,
  ready,
  settled,
  stagePixels,
  type,
  unlike,
  view,
} from './fixtures/workbench'

const WIDTH = 1280
const HEIGHT = 720

/** Where a place of the picture is on the screen. */
async function onScreen(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await page.getByTestId('picture').boundingBox())!
  return [box.x + (x / WIDTH) * box.width, box.y + (y / HEIGHT) * box.height]
}

async function press(page: Page, x: number, y: number, pull?: [number, number]): Promise<void> {
  const [left, top] = await onScreen(page, x, y)
  await page.mouse.move(left, top, { steps: 2 })
  await page.mouse.down()
  if (pull) await page.mouse.move(left + pull[0], top + pull[1], { steps: 4 })
  await page.mouse.up()
}

const isKept = async (page: Page, x: number, y: number) =>
  (await lookAt(page, 'Matte', Math.round(x), Math.round(y)))[0]! > 250

/** Draws a square by its corners, clockwise, closed on the first. */
async function drawSquare(page: Page, left: number, top: number, side: number): Promise<void> {
  await page
    .locator('[data-layer]')
    .first()
    .click({ position: { x: 120, y: 20 } })
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+U')
  await expect(view(page, 'Uncut')).toHaveAttribute('aria-pressed', 'true')
  for (const [x, y] of [
    [left, top],
    [left + side, top],
    [left + side, top + side],
    [left, top + side],
    [left, top],
  ] as const)
    await press(page, x, y)
}

const markers = (page: Page) => page.getByRole('button', { name: /^Key of Outline · shape/ })

test('an outline is drawn, and what is inside it is kept', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  await drawSquare(page, 400, 200, 300)
  expect(await isKept(page, 550, 350)).toBe(true)
  expect(await isKept(page, 350, 350)).toBe(false)
  // A curve reaches farther than its corners, and may begin outside the picture.
  await page.keyboard.press('Shift+U')
  await press(page, 100, 740)
  await press(page, 200, 600, [60, 0])
  await press(page, 300, 740)
  await page.keyboard.press('Enter')
  expect(await isKept(page, 200, 718)).toBe(true)
  expect(await isKept(page, 260, 640)).toBe(true)
  expect(await isKept(page, 300, 700)).toBe(false)
  // Drawn freely it is as the hand went, by few points.
  await page.keyboard.press('Shift+U')
  const [cx, cy] = await onScreen(page, 1000, 300)
  const round = (i: number) => [cx + 60 * Math.cos(i / 5), cy + 60 * Math.sin(i / 5)] as const
  await page.keyboard.down('Shift')
  await page.mouse.move(...round(0))
  await page.mouse.down()
  for (let i = 1; i < 29; i++) await page.mouse.move(...round(i))
  await page.mouse.up()
  await page.keyboard.up('Shift')
  await page.keyboard.press('Enter')
  const out = (50 / 60) * ((await onScreen(page, 1, 0))[0] - (await onScreen(page, 0, 0))[0]) ** -1 * 60
  expect(await isKept(page, 1000 - out, 300)).toBe(true)
  expect(await isKept(page, 1000 - out * 1.4, 300)).toBe(false)
  // One that is left after a point or two leaves nothing behind.
  const pieces = page.getByRole('button', { name: /^Delete Outline/ })
  await expect(pieces).toHaveCount(3)
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+U')
  await press(page, 900, 300)
  await expect(pieces).toHaveCount(4)
  // More is not taken back than was put down.
  for (let i = 0; i < 3; i++) await page.keyboard.press('Backspace')
  await expect(pieces).toHaveCount(4)
  await page.keyboard.press('Escape')
  await expect(pieces).toHaveCount(3)
  // With none of them chosen a press on a line chooses its piece, and a key goes from one to the next.
  await page.keyboard.press('Shift+O')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-unchosen]')).toHaveCount(3)
  await press(page, 400, 300)
  await expect(page.locator('[data-unchosen]')).toHaveCount(0)
  const corners = page.getByRole('group', { name: 'Handles of the chosen piece' })
  await expect(corners.getByTestId('outline')).toHaveCount(1)
  const line = () => corners.getByTestId('outline').getAttribute('d')
  const square = await line()
  await page.keyboard.press('Alt+q')
  await expect.poll(line).not.toBe(square)
  for (let i = 0; i < 2; i++) await page.keyboard.press('Alt+q')
  await expect.poll(line).toBe(square)
  // They are joined in another order by being carried there.
  await page.keyboard.press('Shift+E')
  const order = () =>
    page
      .getByRole('button', { name: /^Delete (Outline|Edge)/ })
      .evaluateAll(all => all.map(e => e.getAttribute('aria-label')))
  expect((await order()).indexOf('Delete Edge')).toBe(3)
  const edge = page.getByRole('button', { name: /^Edge/ }).first()
  await dragBy(page, edge, 0, -120)
  await expect.poll(async () => (await order()).indexOf('Delete Edge')).toBe(0)
})

test('points are moved, chosen together, added and taken away, and no press does another thing', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  await drawSquare(page, 400, 200, 300)
  const before = await look(page, 'Matte')

  // Held, A puts points on the line: the matte stays as it is.
  await page.keyboard.down('a')
  const [x, y] = await onScreen(page, 550, 206)
  await page.mouse.move(x, y, { steps: 3 })
  await expect(page.getByTestId('new-point')).toBeVisible()
  await page.mouse.down()
  await page.mouse.up()
  await page.keyboard.up('a')
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)

  // Without it the new point is taken hold of, and its neighbours stay.
  const [px, py] = await onScreen(page, 550, 200)
  await page.mouse.move(px, py, { steps: 3 })
  await expect(page.getByTestId('new-point')).toHaveCount(0)
  const up = (await onScreen(page, 550, 120))[1]
  await page.mouse.down()
  await page.mouse.move(px, up, { steps: 4 })
  await page.mouse.up()
  expect(await isKept(page, 550, 160)).toBe(true)
  expect(await isKept(page, 420, 160)).toBe(false)
  await page.keyboard.press('Delete')
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)
  await page.keyboard.press('Control+z')
  expect(await isKept(page, 550, 160)).toBe(true)

  // A drag that is not meant is taken back while it lasts.
  await page.keyboard.press('Control+z')
  await settled(page)
  const [cx, cy] = await onScreen(page, 400, 200)
  await page.mouse.move(cx, cy)
  await page.mouse.down()
  await page.mouse.move(cx + 50, cy + 50, { steps: 3 })
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)

  // All of them together: turned by hand, nudged by key.
  await page.keyboard.press('q')
  await dragBy(page, handle(page, 'Scale the chosen points'), -60, -60)
  expect(await isKept(page, 415, 215)).toBe(false)
  expect(await isKept(page, 550, 350)).toBe(true)
  await page.keyboard.press('Control+z')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+Shift+ArrowRight')
  const zoom = (await onScreen(page, 1, 0))[0] - (await onScreen(page, 0, 0))[0]
  expect(await isKept(page, 400 + 24 / zoom, 350)).toBe(false)
  expect(await isKept(page, 400 + 36 / zoom, 350)).toBe(true)
  // All of its points are deleted, the outline is not; with none of them chosen it is, and says so: in no case the layer.
  await page.keyboard.press('Delete')
  expect(await isKept(page, 550, 350)).toBe(false)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Delete')
  await expect(page.getByText('“Outline” is deleted')).toBeVisible()
  await expect(page.locator('[data-piece]')).toHaveCount(0)
  await expect(page.locator('[data-layer]')).toHaveCount(1)
})

test('an outline moves by keys, lies between them in between, and shifts as a whole without', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  await drawSquare(page, 200, 200, 200)
  await expect(markers(page)).toHaveCount(1)
  await goTo(page, 40)
  await page.keyboard.press('q')
  await press(page, 200, 200, [200, 0])
  await expect(markers(page)).toHaveCount(2)
  await goTo(page, 20)
  const zoom = (await onScreen(page, 1, 0))[0] - (await onScreen(page, 0, 0))[0]
  const half = 100 / zoom
  // The key before once more stands still until here; taken back, it moves again.
  await page.keyboard.press('v')
  await expect(markers(page)).toHaveCount(3)
  expect(await isKept(page, 210, 300)).toBe(true)
  await page.keyboard.press('Control+z')
  await expect(markers(page)).toHaveCount(2)
  expect(await isKept(page, 210 + half, 300)).toBe(true)
  expect(await isKept(page, 190 + half, 300)).toBe(false)
  await expect(page.getByText('A change makes a key here')).toBeVisible()
  await page.getByText('A change makes a key here').click()
  await expect(page.getByText('A change shifts all keys')).toBeVisible()
  await page.getByTestId('ruler').focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+Shift+ArrowDown')
  await expect(markers(page)).toHaveCount(2)
  await goTo(page, 0)
  const down = 30 / zoom
  expect(await isKept(page, 300, 204 + down)).toBe(true)
  expect(await isKept(page, 300, 196 + down)).toBe(false)
  await page.reload()
  await page.getByTestId('frame-number').waitFor()
  await expect(markers(page)).toHaveCount(2)
})

test('the picture goes along with a piece that moves, and so does another piece', async ({ page }) => {
  await begin(page, ['clockmaker-left'])
  await drawSquare(page, 300, 200, 100)
  // Drawing has switched keying on: two keys of how it moves as a whole.
  await type(page, 'Across', 5)
  await goTo(page, 20)
  await type(page, 'Across', 165)
  await settled(page)
  await page.getByRole('button', { name: '1:1' }).click()
  const outline = page.locator('[data-piece="Outline"]')
  const before = (await outline.boundingBox())!
  const picture = (await page.getByTestId('picture').boundingBox())!
  await page.keyboard.press('Shift+G')
  await goTo(page, 0)
  await settled(page)
  await expect.poll(async () => (await page.getByTestId('picture').boundingBox())!.x - picture.x).toBeCloseTo(160, 0)
  const after = (await outline.boundingBox())!
  expect([after.x, after.y].map(Math.round)).toEqual([before.x, before.y].map(Math.round))
  await page.getByRole('button', { name: 'Go along' }).click()
  await goTo(page, 20)
  await settled(page)
  expect((await page.getByTestId('picture').boundingBox())!.x - picture.x).toBeCloseTo(160, 0)
  await page.getByRole('button', { name: 'Fit' }).click()

  // A second one has a name of its own, and goes with the first.
  await drawSquare(page, 700, 400, 80)
  await page.getByRole('button', { name: 'Go with…' }).click()
  await page.getByRole('menuitem', { name: 'Outline', exact: true }).click()
  await expect(page.locator('[data-keys="Outline, 2 · motion"]').getByRole('button')).toHaveCount(2)
  expect(await isKept(page, 740, 440)).toBe(true)
  await goTo(page, 10)
  expect(await isKept(page, 660, 440)).toBe(true)
  expect(await isKept(page, 740, 440)).toBe(false)
})

test('an outline leans on the edges of the picture, as far as it may', async ({ page }) => {
  const [width, height, radius] = [640, 360, 100]
  const data = new Uint8Array(width * height * 3).fill(40)
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      if (Math.hypot(x + 0.5 - 320, y + 0.5 - 180) < radius)
        data.fill(220, (y * width + x) * 3, (y * width + x) * 3 + 3)
  }
  const still = join(mkdtempSync(join(tmpdir(), 'jolly-ghost-disc-')), 'disc.png')
  writeFileSync(still, encode({ width, height, channels: 3, data }))
  await page.goto('/')
  await page.getByLabel('Takes for a new shot').setInputFiles(still)
  await ready(page)
  await page.locator('[data-layer]').first().click()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+U')
  const box = (await page.getByTestId('picture').boundingBox())!
  const zoom = box.width / width
  // Roughly round it, eight px too far.
  for (let i = 0; i < 6; i++) {
    const a = (i / 6) * 2 * Math.PI
    const [cx, cy] = [box.x + zoom * (320 + 108 * Math.cos(a)), box.y + zoom * (180 + 108 * Math.sin(a))]
    await page.mouse.move(cx, cy)
    await page.mouse.down()
    await page.mouse.move(cx - zoom * 38 * Math.sin(a), cy + zoom * 38 * Math.cos(a), { steps: 3 })
    await page.mouse.up()
  }
  await page.keyboard.press('Enter')
  const wrong = async () => {
    const matte = await look(page, 'Matte')
    let count = 0
    for (let i = 0; i < width * height; i++) if (matte.rgb[i * 3]! > 127 !== data[i * 3]! > 127) count++
    return count
  }
  expect(await wrong()).toBeGreaterThan(4000)
  await page.keyboard.press('q')
  await page.keyboard.press('e')
  await expect.poll(wrong).toBeLessThan(400)
  await page.keyboard.press('Control+z')
  expect(await wrong()).toBeGreaterThan(4000)
  await page.getByRole('textbox', { name: 'How far it may reach, px' }).fill('3')
  await page.keyboard.press('Enter')
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('e')
  await page.waitForTimeout(500)
  expect(await wrong()).toBeGreaterThan(1500)
})

test('of the frames between two keys the one is found that the outline fits worst', async ({ page }) => {
  await begin(page, ['walk-across'])
  // Round somebody who walks across, at two moments: in between nothing is known yet.
  await goTo(page, 30)
  await drawSquare(page, 300, 150, 300)
  await goTo(page, 150)
  await page.keyboard.press('q')
  await page.keyboard.press('Control+Shift+ArrowRight')
  await expect(markers(page)).toHaveCount(2)
  await page.keyboard.press('g')
  await expect(page.getByRole('button', { name: /Comparing: \d+ of \d+/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /Comparing/ })).toHaveCount(0)
  const found = await frameNumber(page)
  expect(found).toBeGreaterThan(31)
  expect(found).toBeLessThan(151)
  // Stopped, it stays where it is.
  await goTo(page, 150)
  await page.keyboard.press('g')
  await page.getByRole('button', { name: /Comparing/ }).click()
  await expect(page.getByRole('button', { name: /Comparing/ })).toHaveCount(0)
  expect(await frameNumber(page)).toBe(151)
})

test('outlines come in and go out as paths', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await begin(page, ['clockmaker-right'])
  const paste = (text: string) =>
    page.evaluate(words => {
      const clipboardData = new DataTransfer()
      clipboardData.setData('text/plain', words)
      document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }))
    }, text)
  await page.getByTestId('ruler').focus()
  await paste('<svg viewBox="0 0 1280 720"><path d="M400 200h300v300h-300z"/><path d="m900 300 90 0 0 90z"/></svg>')
  await expect(page.getByRole('button', { name: /^Delete Outline/ })).toHaveCount(2)
  expect(await isKept(page, 550, 350)).toBe(true)
  expect(await isKept(page, 970, 320)).toBe(true)
  expect(await isKept(page, 350, 350)).toBe(false)
  await page.keyboard.press('Shift+Space')
  await page.getByPlaceholder('What is to be done?').fill('as a path')
  await page.keyboard.press('Enter')
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toContain('<path d="M400 200L700 200L700 500L400 500L400 200Z"/>')
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /^Delete Outline/ })).toHaveCount(0)
})

test('an outline is softer where its points say so, and between them it goes over', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  await drawSquare(page, 400, 200, 300)
  expect((await lookAt(page, 'Matte', 385, 350))[0]).toBe(0)
  // The lower left corner alone.
  await press(page, 400, 500)
  await page.keyboard.down('d')
  const lozenges = page.locator('[data-piece] path[d^="M-3.2 0"]')
  await expect(lozenges).toHaveCount(4)
  const box = (await lozenges.first().boundingBox())!
  const middle = await onScreen(page, 400, 500)
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const far = Math.hypot(x - middle[0], y - middle[1])
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + ((x - middle[0]) / far) * 20, y + ((y - middle[1]) / far) * 20, { steps: 4 })
  await page.mouse.up()
  await page.keyboard.up('d')
  const matte = await look(page, 'Matte')
  const beside = (at: number) => pixelAt(matte, 385, at)[0]!
  expect(beside(480)).toBeGreaterThan(30)
  expect(beside(480)).toBeLessThan(128)
  expect(beside(350)).toBeLessThan(beside(480))
  expect(pixelAt(matte, 385, 215)[0]).toBe(0)
  await page.keyboard.press('Control+z')
  expect((await lookAt(page, 'Matte', 385, 480))[0]).toBe(0)
})

test('a matte made elsewhere comes in as a piece, as bright as it is, and is missed when it goes', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  const [width, height] = [320, 180]
  // Of another size: white, half, black from left to right.
  const data = Uint8Array.from(
    { length: width * height },
    (_, i) => [255, 128, 0][Math.floor(((i % width) / width) * 3)]!,
  )
  const file = join(mkdtempSync(join(tmpdir(), 'jolly-ghost-matte-')), 'cut.png')
  writeFileSync(file, encode({ width, height, data, depth: 8, channels: 1 }))
  await page.getByLabel('Bring in takes', { exact: true }).setInputFiles(file)
  await page.locator('[data-layer]').first().click()
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: 'cut.png' }).click()
  const matte = await look(page, 'Matte')
  expect([200, 640, 1100].map(x => pixelAt(matte, x, 360)[0])).toEqual([255, 128, 0])
  expect(await lookAt(page, 'Picture', 1100, 360)).toEqual([0, 0, 0])
  // Grown it reaches farther, by the distance to where half of it is.
  await type(page, 'Feather out', 30)
  expect((await lookAt(page, 'Matte', 870, 360))[0]).toBeGreaterThan(20)
  // The layer that only lends its brightness lies nearest, hidden.
  await page.locator('[data-layer]').first().click()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Delete')
  await expect(page.getByText(/was made of what is gone now/)).toBeVisible()
  await page.keyboard.press('Control+z')
  expect(await lookAt(page, 'Picture', 1100, 360)).toEqual([0, 0, 0])
})

test('a piece is kept, and put onto a layer of another shot until it is forgotten', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  await page.locator('[data-layer]').first().click()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+O')
  await type(page, 'Across', 300)
  await page.getByRole('button', { name: 'Keep for others' }).click()
  await expect(page.getByText('“Oval” is kept')).toBeVisible()
  await page.goto('/')
  await begin(page, ['walk-across'])
  await page.locator('[data-layer]').first().click()
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: 'Oval kept' }).click()
  await expect(field(page, 'Across')).toHaveValue('300')
  expect(await isKept(page, 300, 360)).toBe(true)
  expect(await isKept(page, 700, 360)).toBe(false)
  await page.getByRole('button', { name: 'Add a piece' }).click()
  await page.getByRole('menuitem', { name: 'Forget Oval' }).click()
  await expect(page.getByRole('menuitem', { name: 'Oval kept' })).toHaveCount(0)
})
