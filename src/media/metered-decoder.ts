// The browser's decoder, going no farther than is read.

/** Frames that may lie open or be in the making, among them the two that whoever reads holds on to. */
const OPEN = 10

/** Those of this thread that have pieces waiting: a frame that is handed on closes with no word to whoever made it. */
const waiting = new Set<{ feed(): void }>()

/**
 * Whoever reads frames hands a decoder up to forty pieces before the first frame comes, and all of them were decoded
 * for the one that is looked at: work that the other takes of the same picture wait for. Here pieces wait as they came
 * until frames are closed. Frames must be closed, and fewer than `OPEN` be held while more are awaited.
 */
function metered(Native: typeof VideoDecoder): typeof VideoDecoder {
  return class extends Native {
    #pieces: EncodedVideoChunk[] = []
    #open = new Set<VideoFrame>()
    #drained: (() => void)[] = []

    constructor({ output, error }: VideoDecoderInit) {
      super({
        error: reason => {
          this.#forget()
          error(reason)
        },
        output: frame => {
          this.#open.add(frame)
          const close = frame.close.bind(frame)
          frame.close = () => {
            close()
            this.#open.delete(frame)
            this.feed()
          }
          output(frame)
          for (const decoder of waiting) decoder.feed()
        },
      })
      this.addEventListener('dequeue', () => this.feed())
    }

    /** Frames that are neither closed nor handed on to another thread. */
    #held(): number {
      for (const frame of this.#open) if (frame.codedWidth === 0) this.#open.delete(frame)
      return this.#open.size
    }

    feed(): void {
      while (this.#pieces.length > 0 && this.#held() + super.decodeQueueSize < OPEN) {
        super.decode(this.#pieces.shift()!)
      }
      if (this.#pieces.length > 0) waiting.add(this)
      else this.#forget()
    }

    #forget(): void {
      this.#pieces = []
      waiting.delete(this)
      for (const done of this.#drained.splice(0)) done()
    }

    override get decodeQueueSize(): number {
      return super.decodeQueueSize + this.#pieces.length
    }

    override decode(chunk: EncodedVideoChunk): void {
      if (this.state === 'configured') {
        this.#pieces.push(chunk)
        this.feed()
      } else super.decode(chunk)
    }

    override async flush(): Promise<void> {
      if (this.#pieces.length > 0) await new Promise<void>(done => this.#drained.push(done))
      return super.flush()
    }

    override reset(): void {
      super.reset()
      this.#forget()
    }

    override close(): void {
      super.close()
      this.#forget()
    }
  }
}

/** Has all decoders of this thread made so. */
export function meterDecoders(): void {
  if (globalThis.VideoDecoder) globalThis.VideoDecoder = metered(globalThis.VideoDecoder)
}
