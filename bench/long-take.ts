// A take of ten minutes at 1080p: brought in, its small frames and loudness made, sought in; and what memory that takes.
import { execFileSync } from 'node:child_process'
import { statSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser } from '@playwright/test'
import {
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  FilePathSource,
  FilePathTarget,
  Input,
  MP4,
  Mp4OutputFormat,
  Output,
} from 'mediabunny'
import { fullHdShot } from './footage'
import type { Row } from './measure'

const MINUTES = 10

async function all<T>(stream: AsyncIterable<T>): Promise<T[]> {
  const list: T[] = []
  for await (const one of stream) list.push(one)
  return list
}

/** Repeats the packets of a short 1080p take until it lasts ten minutes: real coding, made in seconds. */
async function longTake(): Promise<string> {
  const found = await fullHdShot()
  const take = found.project.takes.find(t => t.name === 'clockmaker-left.mp4')!
  const input = new Input({ source: new FilePathSource(found.pathOf(take)), formats: [MP4] })
  const video = (await input.getPrimaryVideoTrack())!
  const audio = (await input.getPrimaryAudioTrack())!
  const pictures = await all(new EncodedPacketSink(video).packets())
  const sounds = await all(new EncodedPacketSink(audio).packets())
  const round = Math.max(...pictures.map(p => p.timestamp + p.duration))
  const path = join(await mkdtemp(join(tmpdir(), 'jolly-ghost-long-')), 'ten-minutes.mp4')
  const output = new Output({ format: new Mp4OutputFormat({ fastStart: false }), target: new FilePathTarget(path) })
  const pictureSource = new EncodedVideoPacketSource('avc')
  const soundSource = new EncodedAudioPacketSource('aac')
  output.addVideoTrack(pictureSource)
  output.addAudioTrack(soundSource)
  await output.start()
  const pictureMeta = { decoderConfig: (await video.getDecoderConfig())! }
  const soundMeta = { decoderConfig: (await audio.getDecoderConfig())! }
  let soundAt = 0
  for (let at = 0; at < MINUTES * 60; at += round) {
    for (const packet of pictures)
      await pictureSource.add(packet.clone({ timestamp: packet.timestamp + at }), pictureMeta)
    for (const packet of sounds) {
      if (soundAt >= at + round) break
      await soundSource.add(packet.clone({ timestamp: soundAt }), soundMeta)
      soundAt += packet.duration
    }
  }
  await output.finalize()
  input.dispose()
  return path
}

/** Megabytes that a browser's processes hold together. */
function held(): number {
  const lines = execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8' }).split('\n')
  const own = lines.filter(l => l.includes('--type=renderer') && l.includes('chromium'))
  return own.reduce((sum, l) => sum + Number.parseInt(l, 10), 0) / 1024
}

export async function longTakeRows(browser: Browser, origin: string): Promise<Row[]> {
  const path = await longTake()
  const size = statSync(path).size / 1e6
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await page.addInitScript('globalThis.__name = f => f')
  await page.goto(`${origin}/`)
  const before = held()
  const began = performance.now()
  const samples: number[] = []
  const watch = setInterval(() => samples.push(held()), 500)
  await page.getByLabel('Takes for a new shot').setInputFiles(path)
  await page.waitForSelector('main[data-ready=true]', { timeout: 300_000 })
  const opened = (performance.now() - began) / 1000
  const brought = Math.max(...samples, held()) - before
  // Small frames and loudness.
  const kept = () =>
    page.evaluate(
      () =>
        new Promise<boolean>(resolve => {
          const open = indexedDB.open('jolly-ghost')
          open.onsuccess = () => {
            const count = open.result.transaction('made').objectStore('made').count()
            count.onsuccess = () => {
              open.result.close()
              resolve(count.result > 1)
            }
          }
        }),
    )
  const limit = performance.now() + 240_000
  while (!(await kept()) && performance.now() < limit) await page.waitForTimeout(1000)
  const derived = (performance.now() - began) / 1000
  // Memory while going through the take from end to end.
  const ruler = (await page.getByTestId('ruler').boundingBox())!
  const going: number[] = []
  for (let i = 0; i < 30; i++) {
    await page.mouse.click(ruler.x + ((i * 37) % 100) * ((ruler.width - 30) / 100), ruler.y + 10)
    await page.waitForTimeout(400)
    going.push(held())
  }
  clearInterval(watch)
  await context.close()
  await rm(path, { force: true })
  const early = Math.max(...going.slice(8, 16))
  const late = Math.max(...going.slice(-8))
  return [
    {
      what: `a take of ${MINUTES} minutes at 1080p (${size.toFixed(0)} MB) brought in`,
      goal: 'not read whole into memory',
      measured: `open after ${opened.toFixed(0)} s, ${brought.toFixed(0)} MB more held at most; small frames and loudness all there after ${derived.toFixed(0)} s`,
      value: brought / size,
      met: brought < size,
    },
    {
      what: 'going to and fro in it',
      goal: 'memory flat',
      measured: `${early.toFixed(0)} MB after 16 places, ${late.toFixed(0)} MB after 30`,
      value: late / early,
      met: late / early < 1.1,
    },
  ]
}
