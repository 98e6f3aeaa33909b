// Files of every kind that takes come in: they show and sound as they should.
import { readFileSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { createCanvas } from '@napi-rs/canvas'
import { expect, type Page, test } from '@playwright/test'
import { converted } from './fixtures/convert'
import { clip, folder } from './fixtures/files'
import { wav } from './fixtures/wav'
import { begin, closestTo, exportPart, goTo, pixelAt, settled, stagePixels, unlike } from './fixtures/workbench'

const RED = [192, 48, 32]
const BLUE = [32, 64, 192]

/** A still of the demo's size, red on the left and blue on the right. */
async function still(kind: 'avif' | 'webp' | 'jpeg' | 'png'): Promise<string> {
  const canvas = createCanvas(1280, 720)
  const context = canvas.getContext('2d')
  context.fillStyle = `rgb(${RED})`
  context.fillRect(0, 0, 640, 720)
  context.fillStyle = `rgb(${BLUE})`
  context.fillRect(640, 0, 640, 720)
  const path = join(folder(), `flag.${kind}`)
  const bytes = {
    png: () => canvas.encode('png'),
    jpeg: () => canvas.encode('jpeg', 95),
    webp: () => canvas.encode('webp', 95),
    avif: () => canvas.encode('avif', { quality: 95 }),
  }
  writeFileSync(path, await bytes[kind]())
  return path
}

test('stills of every kind show in their own colours', async ({ page }) => {
  await begin(page, ['empty-shop'])
  const kinds = ['png', 'jpeg', 'webp', 'avif'] as const
  await page.getByLabel('Bring in takes').setInputFiles(await Promise.all(kinds.map(still)))
  for (const kind of kinds) {
    const name = `flag.${kind}`
    await expect(page.locator(`[data-take="${name}"]`)).toContainText('1280×720, still')
    await page.getByRole('button', { name: `Place ${name}` }).click()
    await settled(page)
    const shown = await stagePixels(page)
    for (const [x, colour] of [
      [300, RED],
      [900, BLUE],
    ] as const) {
      const most = Math.max(...pixelAt(shown, x, 400).map((v, i) => Math.abs(v - colour[i]!)))
      expect(most, `${kind} at ${x}`).toBeLessThanOrEqual(kind === 'png' ? 0 : 4)
    }
    await page.keyboard.press('Control+z')
  }
})

test('films of every container show the same picture', async ({ page }) => {
  await begin(page, ['pendulum'])
  const files = await converted(clip('pendulum'), wav('tone', 48_000, 0.2, [{ hertz: 440, loud: 0.3 }]))
  await page
    .getByLabel('Bring in takes')
    .setInputFiles(['mov', 'mkv', 'webm'].map(kind => join(files, `pendulum.${kind}`)))
  await goTo(page, 12)
  const shown = await stagePixels(page)
  await page.keyboard.press('Home')
  for (const kind of ['mov', 'mkv', 'webm']) {
    const name = `pendulum.${kind}`
    await expect(page.locator(`[data-take="${name}"]`)).toContainText('1280×720, 30 fps')
    await page.getByRole('button', { name: `Place ${name}` }).click()
    await goTo(page, 12)
    // What is only packed anew is the same to the bit; WebM is coded anew.
    if (kind === 'webm') expect(closestTo(await stagePixels(page), shown)).toBeGreaterThan(28)
    else expect(unlike(await stagePixels(page), shown)).toBe(0)
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Home')
    await settled(page)
  }
})

/** How loud a film is on the left and on the right in a stretch of time, as the browser decodes it: root mean square. */
function loudness(page: Page, path: string, from: number, to: number): Promise<number[]> {
  return page.evaluate(
    async ({ base64, from, to }) => {
      const bytes = Uint8Array.from(atob(base64), c => c.charCodeAt(0))
      const sound = await new OfflineAudioContext(2, 1, 48_000).decodeAudioData(bytes.buffer)
      return [0, 1].map(side => {
        const part = sound.getChannelData(side).subarray(from * 48_000, to * 48_000)
        return Math.sqrt(part.reduce((sum, v) => sum + v * v, 0) / part.length)
      })
    },
    { base64: readFileSync(path).toString('base64'), from, to },
  )
}

test('sound of every coding, rate and number of channels is heard as loud as it is', async ({ page }) => {
  const tone = (hertz: number, loud: number) => ({ hertz, loud })
  const silence = tone(0, 0)
  const original = wav('tone', 48_000, 0.5, [tone(440, 0.3)])
  const files = await converted(clip('pendulum'), original)
  const codings = [original, ...['mp3', 'aac', 'flac', 'ogg'].map(kind => join(files, `tone.${kind}`))]
  const slow = wav('one', 8000, 0.5, [tone(440, 0.3)])
  // Left, right, centre, low, surrounds: the low one is left out, the centre goes to both sides at -3 dB.
  const six = wav('six', 96_000, 0.5, [silence, silence, tone(440, 0.4), tone(60, 0.8), silence, silence])
  const heard = [...[...codings, slow].map(path => [path, 0.3] as const), [six, 0.4 * Math.SQRT1_2] as const]
  await begin(page, ['pendulum'])
  await page.getByLabel('Bring in takes').setInputFiles(heard.map(([path]) => path))
  for (const [i, [path]] of heard.entries()) {
    await goTo(page, i * 20)
    await page.getByRole('button', { name: `Place ${basename(path)}` }).click()
  }
  const film = await exportPart(page, 1, heard.length * 20, 'Quarter')
  for (const [i, [path, loud]] of heard.entries()) {
    const at = (i * 20) / 30
    for (const side of await loudness(page, film, at + 0.1, at + 0.4)) {
      // Coded twice, it may be louder or softer by half a decibel or so.
      expect(Math.abs(side / (loud * Math.SQRT1_2) - 1), basename(path)).toBeLessThan(0.1)
    }
  }
})
