import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { meterDecoders } from './metered-decoder'

/** A decoder that takes a moment for each piece and holds one back, as those that reorder do. */
class Native extends EventTarget {
  static decoded = 0
  state = 'configured'
  #queue: number[] = []
  #back: number[] = []
  #idle: (() => void)[] = []

  constructor(readonly init: VideoDecoderInit) {
    super()
  }
  get decodeQueueSize(): number {
    return this.#queue.length
  }
  #put(timestamp: number): void {
    this.init.output({ timestamp, codedWidth: 16, close() {} } as VideoFrame)
  }
  decode({ timestamp }: { timestamp: number }): void {
    if (this.state !== 'configured') throw new Error('closed')
    this.#queue.push(timestamp)
    setTimeout(() => {
      if (this.#queue.shift() === undefined) return
      Native.decoded++
      this.#back.push(timestamp)
      this.dispatchEvent(new Event('dequeue'))
      if (this.#back.length > 1) this.#put(this.#back.shift()!)
      if (this.#queue.length === 0) for (const done of this.#idle.splice(0)) done()
    }, 1)
  }
  async flush(): Promise<void> {
    if (this.#queue.length > 0) await new Promise<void>(done => this.#idle.push(done))
    for (const timestamp of this.#back.splice(0)) this.#put(timestamp)
  }
  close(): void {
    this.state = 'closed'
    this.#queue = []
  }
  reset(): void {}
}

beforeEach(() => {
  Native.decoded = 0
  vi.stubGlobal('VideoDecoder', Native)
  meterDecoders()
})
afterEach(() => vi.unstubAllGlobals())

const pieces = (decoder: VideoDecoder, count: number) => {
  for (let timestamp = 0; timestamp < count; timestamp++) decoder.decode({ timestamp } as EncodedVideoChunk)
}
/** Until nothing more is decoded: a piece takes less than any of these waits. */
async function rest() {
  for (let still = 0, seen = -1; still < 10; still++) {
    await new Promise(done => setTimeout(done, 4))
    if (Native.decoded !== seen) still = 0
    seen = Native.decoded
  }
}

test('of forty pieces only those up to the frame that is looked at are decoded, and a few more', async () => {
  const held: VideoFrame[] = []
  const decoder = new VideoDecoder({
    output: frame => (frame.timestamp < 10 ? frame.close() : held.push(frame)),
    error: () => {},
  })
  pieces(decoder, 40)
  expect(decoder.decodeQueueSize).toBe(40)
  await rest()
  expect(held[0]?.timestamp).toBe(10)
  expect(Native.decoded).toBeLessThanOrEqual(23)
  const last = held.at(-1)!.timestamp
  for (const frame of held.splice(0)) frame.close()
  await rest()
  expect(held[0]?.timestamp).toBe(last + 1)
  expect(Native.decoded).toBeLessThanOrEqual(34)
})

test('all come in their order where each is closed, and the end is told after the last', async () => {
  const seen: number[] = []
  const decoder = new VideoDecoder({
    output: frame => {
      seen.push(frame.timestamp)
      setTimeout(() => frame.close(), 2)
    },
    error: () => {},
  })
  pieces(decoder, 40)
  await decoder.flush()
  expect(seen).toEqual(Array.from({ length: 40 }, (_, i) => i))
})

test('frames that are handed on to another thread count as closed, whoever sees them go', async () => {
  const held: VideoFrame[] = []
  const colour = new VideoDecoder({ output: frame => held.push(frame), error: () => {} })
  pieces(colour, 40)
  await rest()
  const before = held.length
  for (const frame of held) Object.assign(frame, { codedWidth: 0 })
  const alpha = new VideoDecoder({ output: frame => frame.close(), error: () => {} })
  pieces(alpha, 2)
  await rest()
  expect(held.length).toBeGreaterThan(before)
})

test('what waits is forgotten with the decoder, and whoever waits for its end is not left waiting', async () => {
  const decoder = new VideoDecoder({ output: () => {}, error: () => {} })
  pieces(decoder, 40)
  const flushed = decoder.flush()
  await rest()
  const before = Native.decoded
  decoder.close()
  await flushed
  await rest()
  expect(Native.decoded).toBe(before)
  expect(() => pieces(decoder, 1)).toThrow('closed')
})
