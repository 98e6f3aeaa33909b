// What a person at the browser waits for: playing and seeking, in headless Chromium.

import { spawn } from 'node:child_process'
import { type Browser, chromium, type Page } from '@playwright/test'
import { CHROMIUM_FLAGS } from '../e2e/fixtures/chromium'
import { drawingRows } from './drawing'
import { inStepRows, listen } from './in-step'
import { laneRows } from './lanes'
import { longTakeRows } from './long-take'
import { atMost, percentile, type Row } from './measure'

const PORT = 4990
const ORIGIN = `http://127.0.0.1:${PORT}`

/** The demo shot opened, three 720p layers. */
async function open(page: Page): Promise<void> {
  await page.goto(`${ORIGIN}/shot/two-at-the-counter`)
  await page.waitForSelector('main[data-ready=true]')
  await page.waitForTimeout(1500)
}

/** Frames of the whole shot that came in time. */
async function play(page: Page): Promise<{ shown: number; of: number }> {
  await page.evaluate(() => {
    const shown = new Set<string>()
    Object.assign(window, { shown })
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    new MutationObserver(() => shown.add(canvas.dataset.frame!)).observe(canvas, {
      attributes: true,
      attributeFilter: ['data-frame'],
    })
  })
  await page.keyboard.press('Home')
  await page.waitForTimeout(800)
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.waitForTimeout(8000)
  return { shown: await page.evaluate(() => (window as unknown as { shown: Set<string> }).shown.size), of: 184 }
}

/** Milliseconds from a click on the ruler to the frame on the stage. */
function seek(page: Page, times: number): Promise<number[]> {
  return page.evaluate(async count => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid=picture] canvas')!
    const ruler = document.querySelector('[data-testid=ruler]')!
    const box = ruler.getBoundingClientRect()
    const waits: number[] = []
    for (let i = 0; i < count; i++) {
      const x = box.left + ((i * 7919) % 997) * ((box.width - 25) / 997)
      const counter = document.querySelector('[data-testid=frame-number]')!
      const before = counter.textContent
      const began = performance.now()
      const came = new Promise<void>(resolve => {
        const seen = new MutationObserver(() => {
          seen.disconnect()
          resolve()
        })
        seen.observe(canvas, { attributes: true, attributeFilter: ['data-frame'] })
      })
      const event = { bubbles: true, clientX: x, clientY: box.top + 5, button: 0, buttons: 1, pointerId: 1 }
      ruler.dispatchEvent(new PointerEvent('pointerdown', event))
      ruler.dispatchEvent(new PointerEvent('pointerup', event))
      // One that never comes counts as long as anybody would wait.
      await Promise.race([came, new Promise(resolve => setTimeout(resolve, 20_000))])
      // A click on the frame that is there already is no seek.
      if (counter.textContent !== before) waits.push(performance.now() - began)
      await new Promise(resolve => setTimeout(resolve, 60))
    }
    return waits
  }, times)
}

/** Milliseconds that the browser's own players take to seek both takes that the frame needs. */
function bareDecode(page: Page, times: number): Promise<number[]> {
  return page.evaluate(async count => {
    const videos = await Promise.all(
      ['clockmaker-left', 'clockmaker-right'].map(async name => {
        const video = document.createElement('video')
        video.muted = true
        video.src = URL.createObjectURL(await (await fetch(`/demo/clips/${name}.mp4`)).blob())
        await new Promise(resolve => video.addEventListener('loadeddata', resolve, { once: true }))
        return video
      }),
    )
    const waits: number[] = []
    for (let i = 0; i < count; i++) {
      const began = performance.now()
      await Promise.all(
        videos.map(video => {
          video.currentTime = (((i * 7919) % 997) / 997) * 6
          return new Promise(resolve => video.addEventListener('seeked', resolve, { once: true }))
        }),
      )
      waits.push(performance.now() - began)
    }
    return waits
  }, times)
}

/** What a new page of a new browser gives, the product served beside it. */
async function inBrowser(rowsOf: (page: Page, browser: Browser) => Promise<Row[]>): Promise<Row[]> {
  const server = spawn(process.execPath, ['build/node/server.js'], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, PORT: String(PORT) },
  })
  await new Promise(resolve => server.stdout.once('data', resolve))
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: CHROMIUM_FLAGS,
  })
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    return await rowsOf(page, browser)
  } finally {
    await browser.close()
    server.kill()
  }
}

/** Ten minutes of playing, measured by itself since it takes as long. */
export const playingRows = (): Promise<Row[]> =>
  inBrowser(async page => {
    await listen(page)
    await open(page)
    return inStepRows(page, ORIGIN)
  })

export const browserRows = (): Promise<Row[]> =>
  inBrowser(async (page, browser) => {
    await open(page)
    const lanes = await laneRows(page, ORIGIN)
    const drawing = await drawingRows(page, ORIGIN)
    await open(page)
    const bare = percentile(await bareDecode(page, 60), 0.95)
    const cold = percentile(await seek(page, 60), 0.95)
    const { shown, of } = await play(page)
    const warm = percentile(await seek(page, 60), 0.95)
    const long = await longTakeRows(browser, ORIGIN)
    return [
      {
        what: 'playing three 720p layers at 30 fps on two cores',
        goal: 'every frame in time',
        measured: `${shown} of ${of} frames`,
        value: shown / of,
        met: shown === of,
      },
      atMost(
        'seeking to a random frame, 95th percentile / the browser’s own seek of its two takes',
        1.3,
        cold / bare,
        '×',
        `${cold.toFixed(0)} / ${bare.toFixed(0)} ms; from the cache ${warm.toFixed(0)} ms`,
      ),
      ...drawing,
      ...lanes,
      ...long,
    ]
  })
