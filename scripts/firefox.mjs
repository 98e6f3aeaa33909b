// The product in Firefox, where that is installed: a demo shot is opened, changed, played and exported. `npm test` ends with it.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from './prepare.mjs'

const FIREFOX = ['/usr/bin/firefox-esr', '/usr/bin/firefox']
const DRIVER = 'puppeteer-core@24.43.1'

export const firefox = () => FIREFOX.find(existsSync)

/** The driver, installed apart when it is first wanted: it is large, and nothing else needs it. null where it cannot be had. */
function driver() {
  const home = join(root, 'build/firefox')
  if (!existsSync(join(home, 'node_modules/puppeteer-core'))) {
    console.error('Installing what drives Firefox…')
    const args = ['install', '--prefix', home, '--no-save', '--no-audit', '--no-fund', DRIVER]
    if (spawnSync('npm', args, { cwd: root, stdio: ['ignore', 2, 2] }).status !== 0) return null
  }
  return createRequire(join(home, 'x.js'))('puppeteer-core')
}

const picture = '[data-testid=picture] canvas'

/** In the page: until the stage shows what the document says. */
const isCurrent = where => document.querySelector(where)?.dataset.state === 'current'

/** In the page: mean red, green and blue of the stage, and its size. */
function look(where) {
  const canvas = document.querySelector(where)
  const { width, height } = canvas
  const copy = new OffscreenCanvas(width, height).getContext('2d')
  copy.drawImage(canvas, 0, 0)
  const { data } = copy.getImageData(0, 0, width, height)
  const sum = [0, 0, 0]
  for (let i = 0; i < data.length; i++) if (i % 4 < 3) sum[i % 4] += data[i]
  return { width, height, mean: sum.map(v => v / (width * height)) }
}

/** In the page: numbers of the frames that are shown one after another until there are so many, and milliseconds from the first to the last. */
const shown = (where, many) =>
  new Promise(done => {
    const seen = []
    let start = 0
    const observer = new MutationObserver(([{ target }]) => {
      start ||= performance.now()
      seen.push(Number(target.dataset.frame))
      if (seen.length < many) return
      observer.disconnect()
      done({ frames: seen, took: performance.now() - start })
    })
    observer.observe(document.querySelector(where), { attributes: true, attributeFilter: ['data-frame'] })
  })

/**
 * The stage once it is lit and right, which may take some moments: what a worker draws reaches the screen a little later than its
 * word of it, and a look at the canvas between two of its pictures sees it black.
 */
async function until(page, isRight, problem) {
  for (let tries = 0; tries < 300; tries++) {
    const seen = await page.evaluate(look, picture)
    if (Math.max(...seen.mean) > 20 && isRight(seen.mean)) return seen
    await new Promise(resolve => setTimeout(resolve, 200))
  }
  throw new Error(problem)
}

const differ = (a, b) => Math.max(...a.map((v, i) => Math.abs(v - b[i])))

/** Each step in its order; each goes on from where the one before it left the page. */
const STEPS = {
  async 'opens a demo shot and shows it'(page, base, kept) {
    await page.goto(base)
    await page.locator('::-p-aria(Open Two at the counter)').click()
    await page.waitForSelector('main[data-ready=true]')
    await page.waitForFunction(isCurrent, {}, picture)
    kept.first = await until(page, () => true, 'The stage stays dark.')
    const { width, height } = kept.first
    if (width !== 1280 || height !== 720) throw new Error(JSON.stringify(kept.first))
  },
  async 'hides a layer and brings it back'(page, _, kept) {
    await page.locator('::-p-aria([name="Hide Act A, left"][role="button"])').click()
    await until(page, mean => differ(mean, kept.first.mean) > 0.05, 'Nothing has changed.')
    await page.locator('::-p-aria([name="Show Act A, left"][role="button"])').click()
    await until(page, mean => differ(mean, kept.first.mean) < 1e-6, 'It is not as it was.')
  },
  async plays(page) {
    await page.keyboard.press(' ')
    // How quickly they come says more of the machine than of the product: it is printed, and nothing hangs on it.
    const { frames, took } = await page.evaluate(shown, picture, 24)
    await page.keyboard.press(' ')
    console.error(`    ${(((frames.length - 1) * 1000) / took).toFixed(1)} pictures a second`)
    if (frames.some((frame, i) => frame < frames[i - 1])) throw new Error(`They come out of turn: ${frames.join(' ')}.`)
  },
  async 'makes a film to its end'(page) {
    await page.locator('::-p-aria([name="Export"][role="link"])').click()
    await page.locator('::-p-aria([name="A part"][role="radio"])').click()
    const last = await page.waitForSelector('::-p-aria([name="Last frame"][role="textbox"])')
    await last.click({ count: 3 })
    await last.type('12\n')
    await page.locator('::-p-aria([name="Make the file"][role="button"])').click()
    await page.waitForFunction(() => document.querySelector('[role=status]')?.textContent.includes('finished'))
  },
}

/** Every step in a browser of its own. */
async function goThrough(puppeteer, base) {
  const browser = await puppeteer.launch({
    browser: 'firefox',
    executablePath: firefox(),
    headless: true,
    args: ['--width=1280', '--height=800'],
  })
  const page = await browser.newPage()
  // On a machine that others keep busy too.
  page.setDefaultTimeout(240_000)
  await page.setViewport({ width: 1280, height: 800 })
  const kept = {}
  let passed = 0
  let failed = 0
  for (const [name, step] of Object.entries(STEPS)) {
    try {
      await step(page, base, kept)
      passed++
      console.error(`  ✓ Firefox ${name}`)
    } catch (error) {
      failed++
      console.error(`  ✘ Firefox ${name}: ${error instanceof Error ? error.message : error}`)
      const shot = join(mkdtempSync(join(tmpdir(), 'jolly-ghost-firefox-')), 'page.png')
      await page.screenshot({ path: shot }).catch(() => {})
      console.error(`    ${shot}`)
    }
  }
  await browser.close()
  return { passed, failed }
}

/** Runs every step against a server; where the processors may be shared once more if that fails, as the tests in Chromium do. */
export async function firefoxSmoke(base) {
  const puppeteer = driver()
  if (!puppeteer) {
    console.error('Firefox is not tried: what drives it could not be installed.')
    return { passed: 0, failed: 0 }
  }
  const first = await goThrough(puppeteer, base)
  if (first.failed === 0 || !process.env.CI) return first
  console.error('  Once more:')
  return goThrough(puppeteer, base)
}
