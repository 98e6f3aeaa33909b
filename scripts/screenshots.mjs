// `npm run screenshots`: the pictures in docs/screenshots, from the demo data.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { prepare, root } from './prepare.mjs'

const PORT = 4980
await prepare({ app: true })
const server = spawn(process.execPath, ['build/node/server.js'], {
  cwd: root,
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...process.env, PORT: String(PORT) },
})
// Whatever ends this ends it.
process.once('exit', () => server.kill())
await new Promise(resolve => server.stdout.once('data', resolve))
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--mute-audio'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
// In the page: whether the stage, where there is one, shows what it should.
const isMade = () => (document.querySelector('[data-testid=picture] canvas')?.dataset.state ?? 'current') === 'current'
const shoot = async name => {
  await page.mouse.move(640, 790)
  await page.waitForFunction(isMade, null, { timeout: 60_000 })
  await page.waitForTimeout(1500)
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) })
}
const press = async (key, times = 1) => {
  for (let i = 0; i < times; i++) await page.keyboard.press(key)
}
const view = name => page.getByRole('toolbar', { name: 'Views' }).getByRole('button', { name, exact: true }).click()

await page.goto(`http://127.0.0.1:${PORT}/`)
await page.getByRole('link', { name: 'Open Two at the counter' }).waitFor()
await shoot('shots')
await page.getByRole('link', { name: 'Open Two at the counter' }).click()
await page.waitForSelector('main[data-ready=true]')
await page.getByTestId('ruler').focus()
await press('Shift+ArrowRight', 7)
await press('ArrowRight', 6)
await page.getByRole('button', { name: 'Set a key for across' }).click()
await page.getByRole('button', { name: 'Set a key for feather in' }).click()
await page.getByTestId('ruler').focus()
await press('Shift+ArrowRight', 6)
await page.getByRole('textbox', { name: 'Across', exact: true }).fill('668')
await press('Enter')
await page.getByTestId('ruler').focus()
await press('Shift+ArrowLeft', 6)
// The lanes are filled in the background.
await page.waitForTimeout(9000)
await shoot('workbench')
await view('Tint')
await shoot('tint')
await view('Cut-out')
await shoot('cut-out')
await view('Picture')
await page.getByRole('button', { name: '1:1' }).click()
await shoot('one-to-one')
await page.getByRole('button', { name: 'Fit', exact: true }).click()
await page.getByRole('button', { name: 'House lights' }).click()
await shoot('house-lights')
await page.getByRole('button', { name: 'House lights' }).click()
await page.getByRole('link', { name: 'Export' }).click()
await page.getByRole('radio', { name: 'Quarter' }).click()
await page.getByRole('button', { name: 'Make the file' }).click()
await page.getByRole('button', { name: 'Save', exact: true }).waitFor({ timeout: 180_000 })
await page.getByRole('radio', { name: 'Full' }).click()
await page.getByRole('button', { name: 'Make the file' }).click()
await page.waitForTimeout(3000)
await shoot('export')
const open = async name => {
  await page.goto(`http://127.0.0.1:${PORT}/shot/${name.toLowerCase().replaceAll(' ', '-')}`)
  await page.waitForSelector('main[data-ready=true]')
  await page.waitForTimeout(5000)
  await page.getByTestId('ruler').focus()
}
await open('Seven clockmakers')
await press('Shift+ArrowRight', 23)
await press('r')
await shoot('row')
await press('Escape')
await open('One long take')
await page.getByRole('button', { name: 'Look at one-long-take.mp4 alone' }).click()
await page.waitForTimeout(800)
await page.getByTestId('ruler').focus()
await press('Shift+ArrowRight', 12)
await press('i')
await press('Shift+ArrowRight', 5)
await press('o')
await shoot('take')
await press('Escape')
await page.getByTestId('ruler').focus()
await press('Shift+Space')
await page.getByPlaceholder('What is to be done?').fill('s')
await shoot('finder')
await open('Stuck second')
const ruler = await page.getByTestId('ruler').boundingBox()
await page.mouse.move(ruler.x + 240, ruler.y + 10)
for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -120)
await press('Shift+ArrowRight', 5)
await page.waitForTimeout(3000)
await shoot('lanes')
await open('The pendulum')
await press('Shift+ArrowRight', 4)
await page.getByRole('tab', { name: 'Looks' }).click()
await page.getByRole('button', { name: 'Add a look' }).click()
await page.getByRole('menuitem', { name: 'Light' }).click()
for (const [label, value] of [
  ['Exposure', '1.2'],
  ['Red', '0.35'],
]) {
  await page.getByRole('textbox', { name: label }).fill(value)
  await press('Enter')
}
await shoot('looks')
await open('Two at the counter')
await press('Shift+U')
const picture = await page.getByTestId('picture').boundingBox()
// Round the clockmaker at the right: place, and how far the handle is pulled, in shares of the picture's width and height.
for (const [x, y, dx, dy] of [
  [0.69, 0.32, 0.045, 0],
  [0.745, 0.46, 0.02, 0.07],
  [0.81, 0.58, 0, 0.05],
  [0.77, 0.69, 0, 0],
  [0.61, 0.69, 0, 0],
  [0.575, 0.56, 0.012, -0.07],
  [0.645, 0.43, 0.01, -0.06],
]) {
  await page.mouse.move(picture.x + x * picture.width, picture.y + y * picture.height)
  await page.mouse.down()
  if (dx || dy)
    await page.mouse.move(picture.x + (x + dx) * picture.width, picture.y + (y + dy) * picture.height, { steps: 3 })
  await page.mouse.up()
}
await press('Enter')
await press('q')
await shoot('drawing')
await page.getByRole('button', { name: 'Delete Outline' }).click()
await page.locator('[data-layer="Act A, left"]').click()
await press('Shift+Q')
await view('Cut-out')
await page.waitForTimeout(6000)
await shoot('plate')
await view('Picture')
await page.getByLabel('Plate', { exact: true }).selectOption('')
/** A stroke through places told in shares of the picture. */
const stroke = async points => {
  const [first, ...more] = points.map(([x, y]) => [picture.x + x * picture.width, picture.y + y * picture.height])
  await page.mouse.move(...first)
  await page.mouse.down()
  for (const at of more) await page.mouse.move(...at, { steps: 5 })
  await page.mouse.up()
}
await press('p')
for (const points of [
  [
    [0.32, 0.36],
    [0.315, 0.5],
    [0.33, 0.66],
  ],
  [
    [0.25, 0.56],
    [0.27, 0.65],
  ],
])
  await stroke(points)
await press('z')
for (const points of [
  [
    [0.19, 0.67],
    [0.23, 0.44],
    [0.3, 0.25],
    [0.37, 0.21],
    [0.44, 0.32],
    [0.48, 0.66],
  ],
  [
    [0.2, 0.72],
    [0.47, 0.72],
  ],
])
  await stroke(points)
await press('z')
await view('Tint')
await page.waitForTimeout(6000)
await shoot('strokes')
await view('Picture')
await page.getByRole('button', { name: 'Delete Plate cut-out' }).click()
await page.locator('[data-layer="Act B, right"]').click()
await page.getByRole('link', { name: 'Lock-off report' }).click()
await page.getByText(/Nobody is there/).waitFor({ timeout: 120_000 })
await page.getByRole('slider', { name: 'Frames of clockmaker-right.mp4' }).focus()
await press('PageDown', 8)
await shoot('report')
await open('Trolley')
await press('Shift+ArrowRight', 9)
await page.locator('[data-bar="The trolley, cut out"]').click({ position: { x: 300, y: 20 } })
await press('Shift+T')
await page.getByLabel('Type the letters').fill('FRAGILE')
await press('Escape')
await page.getByRole('tab', { name: 'Place' }).click()
await page.getByRole('button', { name: 'Pin its corners' }).click()
// The crate at frame 90, px of the shot.
const yard = await page.getByTestId('picture').boundingBox()
const px = yard.width / 1280
for (const [name, x, y] of [
  ['top left', 420, 415],
  ['top right', 522, 420],
  ['bottom right', 522, 472],
  ['bottom left', 420, 470],
]) {
  const corner = await page.locator(`[data-handle="Move the ${name} corner"] circle`).first().boundingBox()
  await page.mouse.move(corner.x + corner.width / 2, corner.y + corner.height / 2)
  await page.mouse.down()
  await page.mouse.move(yard.x + x * px, yard.y + y * px, { steps: 5 })
  await page.mouse.up()
}
await press('Alt+S')
await page.locator('[data-keys="Corners"] [data-key]').nth(20).waitFor({ timeout: 60_000 })
await page.getByRole('button', { name: '1:1' }).click()
await shoot('pin')
await open('Open late')
await press('Shift+ArrowRight', 9)
await press('ArrowRight', 6)
await page.locator('[data-layer="OPEN"]').click()
await page.getByRole('tab', { name: 'Letters' }).click()
await shoot('letters')
await page.goto(`http://127.0.0.1:${PORT}/guide`)
await shoot('guide')
await browser.close()
server.kill()
