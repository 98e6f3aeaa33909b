// The workbench: playing, the matte by hand, keys, layers, undo, zoom.
import { expect, test } from '@playwright/test'
import { terminalFrame, writtenFrame } from './fixtures/terminal'
import {
  dragBy,
  field,
  frameNumber,
  goTo,
  handle,
  openDemo,
  pixelAt,
  savedFrame,
  settled,
  stagePixels,
  type,
  unlike,
  view,
} from './fixtures/workbench'

test.beforeEach(async ({ page }) => {
  await openDemo(page)
})

test('preview, saved frame and terminal are the same picture to the bit', async ({ page }) => {
  await goTo(page, 76)
  const stage = await stagePixels(page)
  expect(unlike(stage, await savedFrame(page))).toBe(0)
  expect(unlike(stage, await terminalFrame('two-at-the-counter', 76))).toBe(0)
  expect(unlike(stage, await writtenFrame('two-at-the-counter', 76))).toBe(0)
})

test('plays at the rate of the shot, steps, jumps, and the playhead can be dragged', async ({ page }) => {
  const play = page.getByRole('button', { name: 'Play', exact: true })
  await page.evaluate(() => {
    const seen: [number, number][] = []
    Object.assign(window, { seen })
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    new MutationObserver(() => seen.push([performance.now(), Number(canvas.dataset.frame)])).observe(canvas, {
      attributes: true,
    })
  })
  /** Plays for a while; by how much the pace of what was seen is off, over the stretch that was best kept. */
  const played = async (): Promise<number> => {
    await page.keyboard.press('Home')
    await settled(page)
    await page.evaluate(() => (window as unknown as { seen: unknown[] }).seen.splice(0))
    await play.click()
    await page.waitForTimeout(3500)
    await page.keyboard.press('Space')
    await expect(play).toBeVisible()
    const seen = await page.evaluate(() => (window as unknown as { seen: [number, number][] }).seen)
    const running = seen.filter(([, frame], i) => i > 0 && frame > 5)
    const [[t0, f0], [t1, f1]] = [running[0]!, running.at(-1)!]
    expect((f1 - f0) / ((t1 - t0) / 1000)).toBeLessThan(36)
    for (let i = 1; i < running.length; i++) expect(running[i]![1]).toBeGreaterThanOrEqual(running[i - 1]![1])
    const rates = running.flatMap(([t, f]) => {
      const later = running.find(([other]) => other >= t + 700)
      return later ? [(later[1] - f) / ((later[0] - t) / 1000)] : []
    })
    return Math.min(...rates.map(rate => Math.abs(rate - 30)))
  }
  // On a starved machine pictures come late; what must hold is that time is kept where it can be, and never runs ahead.
  await expect.poll(played).toBeLessThan(2)
  await settled(page)

  await page.keyboard.press('Home')
  expect(await frameNumber(page)).toBe(1)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowLeft')
  expect(await frameNumber(page)).toBe(2)
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  expect(await frameNumber(page)).toBe(1)
  await page.keyboard.press('End')
  expect(await frameNumber(page)).toBe(184)
  await settled(page)
  const ruler = (await page.getByTestId('ruler').boundingBox())!
  await page.mouse.move(ruler.x + 300, ruler.y + 10)
  await page.mouse.down()
  await page.mouse.move(ruler.x + 500, ruler.y + 10, { steps: 10 })
  await page.mouse.up()
  const at = await frameNumber(page)
  expect(at).toBeGreaterThan(60)
  await settled(page)
  const head = (await page.getByTestId('playhead').boundingBox())!
  expect(Math.abs(head.x - (ruler.x + 500))).toBeLessThan(8)
  expect(unlike(await stagePixels(page), await terminalFrame('two-at-the-counter', at - 1))).toBe(0)
})

test('stops at the end and begins again from the start', async ({ page }) => {
  await goTo(page, 170)
  await page.keyboard.press('Space')
  await expect(page.getByTestId('frame-number')).toHaveText('frame 184 of 184')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await page.keyboard.press('Space')
  await expect.poll(() => frameNumber(page)).toBeLessThan(100)
  await page.keyboard.press('Space')
})

test('the edge is moved, turned, widened, inverted and swapped on the picture', async ({ page }) => {
  await goTo(page, 76)
  const before = await stagePixels(page)
  await dragBy(page, handle(page, 'Move the edge'), -120, 0)
  await settled(page)
  const x = Number(await field(page, 'Across').inputValue())
  expect(x).toBeLessThan(500)
  expect(unlike(await stagePixels(page), before)).toBeGreaterThan(1000)

  await dragBy(page, handle(page, 'Turn the edge'), 60, 0)
  expect(Number(await field(page, 'Turn').inputValue())).toBeGreaterThan(15)
  await dragBy(page, handle(page, 'Feather inside'), 40, 0)
  expect(Number(await field(page, 'Feather in').inputValue())).toBeGreaterThan(40)
  await dragBy(page, handle(page, 'Feather outside'), -40, 0)
  expect(Number(await field(page, 'Feather out').inputValue())).toBeGreaterThan(40)

  await view(page, 'Matte').click()
  await settled(page)
  const matte = await stagePixels(page)
  expect(pixelAt(matte, 20, 700)).toEqual([0, 0, 0])
  expect(pixelAt(matte, 1260, 20)).toEqual([255, 255, 255])
  await page.getByRole('switch', { name: 'Inverted' }).click()
  await settled(page)
  expect(pixelAt(await stagePixels(page), 20, 700)).toEqual([255, 255, 255])

  for (const [kind, corner] of [
    ['Box', 255],
    ['Oval', 0],
  ] as const) {
    await page.getByRole('radio', { name: kind, exact: true }).click()
    if (kind === 'Box') {
      await page.getByRole('switch', { name: 'Inverted' }).click()
      await type(page, 'Feather in', 0)
      await type(page, 'Feather out', 0)
      await dragBy(page, handle(page, 'Stretch from the right'), 80, 0)
      expect(Number(await field(page, 'Width').inputValue())).toBeGreaterThan(450)
    }
    await settled(page)
    const shape = await stagePixels(page)
    expect(pixelAt(shape, 640, 360)).toEqual([255, 255, 255])
    expect(pixelAt(shape, 464, 184)[0]).toBe(corner)
  }
  await dragBy(page, handle(page, 'Turn the oval'), 80, 40)
  expect(Math.abs(Number(await field(page, 'Turn').inputValue()))).toBeGreaterThan(10)
  await dragBy(page, handle(page, 'Feather outside'), 0, -40)
  expect(Number(await field(page, 'Feather out').inputValue())).toBeGreaterThan(10)
})

test('keys move a value between them, and can be moved, eased and taken away', async ({ page }) => {
  await page.getByRole('button', { name: 'Set a key for across' }).click()
  await goTo(page, 100)
  await type(page, 'Across', 1052)
  await goTo(page, 50)
  expect(Number(await field(page, 'Across').inputValue())).toBeCloseTo(852, 0)
  const row = page.locator('[data-keys="Edge · line"]')
  await expect(row.getByRole('button')).toHaveCount(2)
  const second = row.getByRole('button', { name: /frame 101/ })
  await second.click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Linear' }).click()
  await row.getByRole('button', { name: /frame 1,/ }).click({ button: 'right' })
  await page.getByRole('menuitem', { name: 'Hold' }).click()
  expect(Number(await field(page, 'Across').inputValue())).toBeCloseTo(652, 0)
  await dragBy(page, row.getByRole('button', { name: /frame 101/ }), -100, 0)
  const moved = row.getByRole('button').nth(1)
  expect(Number(/frame (\d+)/.exec((await moved.getAttribute('aria-label'))!)![1])).toBeLessThan(90)
  await moved.focus()
  await page.keyboard.press('Delete')
  await expect(row.getByRole('button')).toHaveCount(1)
  // With keying on, any change makes a key.
  await page.getByRole('button', { name: /Keying/ }).click()
  await type(page, 'Feather in', 40)
  await expect(page.locator('[data-keys="Edge · feather in"]').getByRole('button')).toHaveCount(1)
})

test('the matte is taken away and brought back, layers hidden, slid and reordered, all undone', async ({ page }) => {
  await goTo(page, 76)
  const start = await stagePixels(page)
  const stack = page.getByRole('region', { name: 'Depth stack' })
  const names = () => stack.locator('[data-layer]').evaluateAll(cards => cards.map(c => c.getAttribute('data-layer')))

  await page.getByRole('switch', { name: 'used' }).click()
  await settled(page)
  expect(unlike(await stagePixels(page), start)).toBeGreaterThan(100_000)
  await page.getByRole('switch', { name: 'taken away' }).click()
  await settled(page)
  expect(unlike(await stagePixels(page), start)).toBe(0)

  await stack.getByRole('button', { name: 'Hide Act B, right' }).click()
  await settled(page)
  expect(unlike(await stagePixels(page), start)).toBeGreaterThan(100_000)

  await dragBy(page, page.locator('[data-bar="Act A, left"]').getByRole('button'), 90, 0)
  await expect(stack.locator('[data-layer="Act A, left"]')).toContainText(/\d+ f late/)

  await dragBy(page, stack.locator('[data-layer="Act A, left"]').getByLabel(/drag to another depth/), 0, -160)
  await expect.poll(names).toEqual(['Act A, left', 'Act B, right', 'Empty shop'])
  await settled(page)
  const changed = await stagePixels(page)

  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
  await settled(page)
  await expect.poll(names).toEqual(['Act B, right', 'Act A, left', 'Empty shop'])
  expect(unlike(await stagePixels(page), start)).toBe(0)
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+Shift+z')
  await settled(page)
  await expect.poll(async () => unlike(await stagePixels(page), changed)).toBe(0)
})

test('the picture is zoomed round the pointer, panned, fitted and shown 1:1', async ({ page }) => {
  const stage = (await page.getByTestId('stage').boundingBox())!
  const picture = page.getByTestId('picture')
  const zoom = async () => Number.parseInt((await page.getByLabel('Zoom').textContent())!, 10)
  const before = (await picture.boundingBox())!
  const [px, py] = [stage.x + 300, stage.y + 200]
  const share = (box: { x: number; width: number }) => (px - box.x) / box.width
  await page.mouse.move(px, py)
  await page.mouse.wheel(0, -600)
  await expect.poll(zoom).toBeGreaterThan(90)
  expect(share((await picture.boundingBox())!)).toBeCloseTo(share(before), 2)
  await page.getByRole('button', { name: '1:1' }).click()
  const zoomed = (await picture.boundingBox())!
  // The space bar pans; it does not press once more what was pressed last.
  await page.keyboard.down('Space')
  await page.mouse.move(px, py)
  await page.mouse.down()
  await page.mouse.move(px + 70, py + 30, { steps: 4 })
  await page.mouse.up()
  await page.keyboard.up('Space')
  expect((await picture.boundingBox())!.x - zoomed.x).toBeCloseTo(70, 0)
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  // So does the middle button, which pastes nothing.
  await page.mouse.down({ button: 'middle' })
  await page.mouse.move(px + 90, py + 30, { steps: 4 })
  await page.mouse.up({ button: 'middle' })
  expect((await picture.boundingBox())!.x - zoomed.x).toBeCloseTo(90, 0)
  await expect(page.locator('[data-sonner-toast]')).toHaveCount(0)
  await page.getByRole('button', { name: '1:1' }).click()
  expect((await picture.boundingBox())!.width).toBe(1280)
  await page.getByRole('button', { name: 'Fit' }).click()
  expect((await picture.boundingBox())!.width).toBeCloseTo(before.width, 0)
})
