// The lanes by hand: slide, trim, slip, stretch, fade, snap, choose, zoom, marks, depth.
import { expect, type Locator, type Page, test } from '@playwright/test'
import {
  begin,
  dragBy,
  field,
  frameNumber,
  goTo,
  openDemo,
  settled,
  stagePixels,
  type,
  unlike,
} from './fixtures/workbench'

const bar = (page: Page, name: string): Locator => page.locator(`[data-bar="${name}"]`)
const press = async (page: Page, keys: string) => {
  await page.getByTestId('ruler').focus()
  await page.keyboard.press(keys)
}
const value = (page: Page, label: string): Promise<number> => field(page, label).inputValue().then(Number)
const number = (page: Page): Promise<number> => frameNumber(page)

/** Drags from a point of something, with keys held. */
async function drag(page: Page, what: Locator, at: { x: number; y: number }, dx: number, dy = 0, keys: string[] = []) {
  const box = (await what.boundingBox())!
  await page.mouse.move(box.x + at.x, box.y + at.y)
  for (const key of keys) await page.keyboard.down(key)
  await page.mouse.down()
  await page.mouse.move(box.x + at.x + dx / 2, box.y + at.y + dy / 2, { steps: 4 })
  await page.mouse.move(box.x + at.x + dx, box.y + at.y + dy, { steps: 4 })
  await page.mouse.up()
  for (const key of keys) await page.keyboard.up(key)
}

test('a bar is slid, trimmed, slipped, stretched and faded, each one step back', async ({ page }) => {
  await begin(page, ['clockmaker-left'])
  const name = 'clockmaker-left'
  await goTo(page, 60)
  const whole = await stagePixels(page)

  // Trimmed at the front, what is seen under the playhead stays; trimmed beyond the take it stops there.
  await drag(page, bar(page, name).locator('[data-end=from]'), { x: 4, y: 20 }, 90)
  await settled(page)
  expect(await value(page, 'Begins at')).toBeGreaterThan(10)
  expect(unlike(await stagePixels(page), whole)).toBe(0)
  await drag(page, bar(page, name).locator('[data-end=from]'), { x: 4, y: 20 }, -400)
  expect(await value(page, 'Begins at')).toBe(0)
  expect(await value(page, 'Lasts')).toBe(184)

  await drag(page, bar(page, name).locator('[data-end=to]'), { x: 4, y: 20 }, -200)
  const shorter = await value(page, 'Lasts')
  expect(shorter).toBeLessThan(150)

  // Slipped, the span stays and the picture under it moves.
  await drag(page, bar(page, name), { x: 200, y: 25 }, -60, 0, ['Alt'])
  await settled(page)
  expect(await value(page, 'Begins at')).toBe(0)
  expect(await value(page, 'Lasts')).toBe(shorter)
  expect(unlike(await stagePixels(page), whole)).toBeGreaterThan(1000)

  // Stretched, the same part plays slower; typed, as fast as is typed.
  await drag(page, bar(page, name).locator('[data-end=to]'), { x: 4, y: 20 }, 100, 0, ['Shift'])
  expect(await value(page, 'Speed')).toBeLessThan(95)
  expect(await value(page, 'Lasts')).toBeGreaterThan(shorter)
  await type(page, 'Speed', -200)
  expect(await value(page, 'Lasts')).toBeLessThan(shorter)
  await expect(bar(page, name)).toContainText('-200%')

  await drag(page, bar(page, name).locator('[data-fade="Fade in"]'), { x: 8, y: 8 }, 60)
  expect(await value(page, 'Fade in')).toBeGreaterThan(5)
  await drag(page, bar(page, name).locator('[data-fade="Sound out"]'), { x: 8, y: 8 }, -40)
  await page.getByRole('tab', { name: 'Sound' }).click()
  expect(await value(page, 'Goes out')).toBeGreaterThan(3)
  await page.getByRole('tab', { name: 'Time' }).click()

  for (let i = 0; i < 8; i++) await press(page, 'Control+z')
  await settled(page)
  expect(unlike(await stagePixels(page), whole)).toBe(0)
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('several are chosen by box and by modifier, and treated together; locked ones stay', async ({ page }) => {
  await openDemo(page)
  const chosen = () => page.locator('[data-bar] button[aria-pressed=true]').count()
  await bar(page, 'Act A, left').click({ position: { x: 300, y: 25 } })
  expect(await chosen()).toBe(1)
  await bar(page, 'Empty shop').click({ position: { x: 300, y: 25 }, modifiers: ['Control'] })
  expect(await chosen()).toBe(2)
  await press(page, 'Alt+Shift+ArrowRight')
  const label = (name: string) => bar(page, name).getByRole('button').first().getAttribute('aria-label')
  expect(await label('Act A, left')).toContain('frames 11 to')
  expect(await label('Empty shop')).toContain('frames 11 to')
  expect(await label('Act B, right')).toContain('frames 1 to')

  await page.getByRole('button', { name: 'Lock Empty shop' }).click()
  await press(page, 'Control+a')
  expect(await chosen()).toBe(3)
  await press(page, 'Alt+ArrowRight')
  expect(await label('Act A, left')).toContain('frames 12 to')
  expect(await label('Empty shop')).toContain('frames 11 to')
  expect(await label('Act B, right')).toContain('frames 2 to')

  // A box over the lower lanes, drawn from the empty end of them.
  await goTo(page, 0)
  await page
    .getByRole('region', { name: 'Lanes' })
    .locator('ol')
    .click({ position: { x: 795, y: 160 } })
  expect(await chosen()).toBe(0)
  const lanes = (await page.getByRole('region', { name: 'Lanes' }).locator('ol').boundingBox())!
  const low = (await bar(page, 'Empty shop').boundingBox())!
  await page.mouse.move(lanes.x + lanes.width - 8, low.y + low.height + 6)
  await page.mouse.down()
  await page.mouse.move(lanes.x + lanes.width - 200, low.y - 20, { steps: 6 })
  await page.mouse.up()
  expect(await chosen()).toBe(2)
})

test('what is dragged meets ends and marks, shows where, and is held off with Ctrl', async ({ page }) => {
  await openDemo(page)
  await goTo(page, 60)
  await press(page, 'm')
  await page.getByRole('textbox', { name: 'Word at the mark' }).fill('door')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /Mark door at frame 61/ })).toBeVisible()
  await goTo(page, 0)
  await bar(page, 'Act B, right').click({ position: { x: 300, y: 30 } })
  const perFrame = (await bar(page, 'Act B, right').boundingBox())!.width / 184
  const near = Math.round(60 * perFrame + 5)
  const slide = async (keys: string[]) => {
    const box = (await bar(page, 'Act B, right').boundingBox())!
    await page.mouse.move(box.x + 100, box.y + 30)
    await page.mouse.down()
    for (const key of keys) await page.keyboard.down(key)
    await page.mouse.move(box.x + 100 + near - 3, box.y + 30, { steps: 6 })
    await page.mouse.move(box.x + 100 + near, box.y + 30, { steps: 2 })
    const met = await page.getByTestId('meeting').isVisible()
    await page.mouse.up()
    for (const key of keys) await page.keyboard.up(key)
    return { met, at: await value(page, 'Begins at') }
  }
  expect(await slide([])).toEqual({ met: true, at: 60 })
  await press(page, 'Control+z')
  const free = await slide(['Control'])
  expect(free.met).toBe(false)
  expect(free.at).not.toBe(60)

  await press(page, 'Alt+PageDown')
  expect(await number(page)).toBe(61)
  await page.getByRole('button', { name: /Mark door/ }).focus()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('button', { name: /Mark door/ })).toHaveCount(0)
  await expect(page.locator('[data-layer]')).toHaveCount(3)
})

test('the lanes zoom about the pointer down to one frame of 60 px, and go along with the playhead', async ({
  page,
}) => {
  await openDemo(page)
  const ruler = (await page.getByTestId('ruler').boundingBox())!
  const width = async () => (await bar(page, 'Act A, left').boundingBox())!.width
  const whole = await width()
  await page.mouse.move(ruler.x + 400, ruler.y + 10)
  const frameUnder = async () => {
    const box = (await bar(page, 'Act A, left').boundingBox())!
    return ((ruler.x + 400 - box.x) / box.width) * 184
  }
  const before = await frameUnder()
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -120)
  await expect.poll(width).toBeGreaterThan(whole * 2)
  expect(await frameUnder()).toBeCloseTo(before, 0)
  for (let i = 0; i < 20; i++) await page.mouse.wheel(0, -240)
  await expect.poll(width).toBeCloseTo(184 * 60, -1)
  const left = async () => (await bar(page, 'Act A, left').boundingBox())!.x
  const seen = await left()
  await press(page, 'End')
  await expect.poll(left).toBeLessThan(seen - 1000)
  await expect(page.getByTestId('playhead')).toBeVisible()
  await press(page, 'Alt+w')
  await expect.poll(width).toBeCloseTo(whole, 0)
})

test('depth is changed in the lanes by hand, and split, delete and close by keyboard', async ({ page }) => {
  await openDemo(page)
  const order = () => page.locator('[data-lane]').evaluateAll(all => all.map(l => l.getAttribute('data-lane')))
  await dragBy(page, page.locator('[data-head="Empty shop"] svg').first(), 0, -110)
  await expect.poll(order).toEqual(['Empty shop', 'Act B, right', 'Act A, left'])
  await press(page, 'Control+z')
  await expect.poll(order).toEqual(['Act B, right', 'Act A, left', 'Empty shop'])

  await bar(page, 'Act A, left').click({ position: { x: 300, y: 25 } })
  await goTo(page, 50)
  const before = await stagePixels(page)
  await press(page, 'Shift+X')
  await goTo(page, 120)
  await press(page, 'Shift+X')
  await expect(page.locator('[data-lane="Act A, left"]')).toHaveCount(3)
  await press(page, 'PageUp')
  expect(await number(page)).toBe(51)
  await settled(page)
  expect(unlike(await stagePixels(page), before)).toBe(0)
  // The middle part goes, and what follows closes up.
  const parts = page.locator('[data-lane="Act A, left"] [data-bar]')
  const labels = await parts.getByRole('button').evaluateAll(all => all.map(b => b.getAttribute('aria-label')))
  const middle = labels.findIndex(l => l?.includes('frames 51 to 120'))
  await parts.nth(middle).click({ position: { x: 60, y: 25 } })
  await press(page, 'Shift+Delete')
  await expect(page.locator('[data-lane="Act A, left"]')).toHaveCount(2)
  const now = await parts.getByRole('button').evaluateAll(all => all.map(b => b.getAttribute('aria-label')))
  expect(now.some(l => l?.includes('frames 51 to 114'))).toBe(true)
})

test('every command is found by name, and the guide lists each with its keys', async ({ page }) => {
  await openDemo(page)
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+Space')
  await page.getByPlaceholder('What is to be done?').fill('freez')
  await page.keyboard.press('Enter')
  await expect(bar(page, 'Act B, right')).toContainText('frozen')
  await page.keyboard.press('Control+z')
  await page.goto('/guide')
  await expect(page.getByRole('region', { name: 'Shortcuts' })).toContainText('Split at the playhead')
  await expect(page.getByRole('region', { name: 'Shortcuts' })).toContainText('Shift X')
})

test('keys of several values are boxed, moved, copied, stretched and deleted together', async ({ page }) => {
  await begin(page, ['clockmaker-right'])
  await page.locator('[data-layer]').first().click()
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Shift+O')
  for (const frame of [20, 40, 60]) {
    await goTo(page, frame)
    for (const name of ['Grow', 'Strength']) await page.getByRole('button', { name: `Set a key for ${name}` }).click()
  }
  const row = (name: string) => page.locator(`[data-keys="Oval · ${name}"]`)
  const frames = (name: string) =>
    row(name)
      .locator('[data-key]')
      .evaluateAll(marks => marks.map(mark => Number((mark as HTMLElement).dataset.key)))
  const both = async (...wanted: number[]) => {
    for (const name of ['grow', 'strength']) await expect.poll(() => frames(name)).toEqual(wanted)
  }
  await both(20, 40, 60)
  const mark = async (name: string, frame: number) => {
    const box = (await row(name).locator(`[data-key="${frame}"]`).boundingBox())!
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  }
  /** From one place of the screen to another, with the main button. */
  const drag = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(to.x, to.y, { steps: 5 })
    await page.mouse.up()
  }
  const [first, second, third] = [await mark('grow', 20), await mark('grow', 40), await mark('strength', 60)]
  const perFrame = (second.x - first.x) / 20
  const along = (from: { x: number; y: number }, by: number) => ({ x: from.x + by * perFrame, y: from.y })
  // A box round two of one row: the bracket is as tall as it. Then round the last two of both rows.
  const tall = async () => (await page.locator('[data-bracket="last"]').boundingBox())!.height
  await drag({ x: second.x - 25, y: first.y }, { x: third.x + 25, y: first.y + 2 })
  await expect(page.locator('[data-key][aria-pressed="true"]')).toHaveCount(2)
  const one = await tall()
  await drag({ x: second.x - 25, y: first.y }, { x: third.x + 25, y: third.y })
  await expect(page.locator('[data-key][aria-pressed="true"]')).toHaveCount(4)
  expect(await tall()).toBe(2 * one)
  await drag(await mark('grow', 40), along(await mark('grow', 40), 10))
  await both(20, 50, 70)
  // Their bracket stretches them about its other end.
  const end = (await page.locator('[data-bracket="last"]').boundingBox())!
  const grip = { x: end.x + end.width / 2, y: end.y + 8 }
  await drag(grip, along(grip, 20))
  await both(20, 50, 90)
  // With Alt copies are moved, the keys stay.
  await page.keyboard.down('Alt')
  await drag(await mark('strength', 90), along(await mark('strength', 90), 25))
  await page.keyboard.up('Alt')
  await both(20, 50, 75, 90, 115)
  // What is chosen now are the copies.
  await page.getByTestId('ruler').focus()
  await page.keyboard.press('Delete')
  await both(20, 50, 90)
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z')
  await both(20, 40, 60)
})
