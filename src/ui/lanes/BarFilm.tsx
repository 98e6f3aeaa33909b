import { useEffect, useRef } from 'react'
import type { TimeScale } from '../../app/time-scale'
import { asTake, type Layer, momentAt, speedOf } from '../../core/shot'
import { peakBetween } from '../../core/sound'
import { frameToSeconds, type Rate } from '../../core/time'
import { plainContext } from '../common/plain-canvas'
import { useDerived } from '../stage/engine-context'

const WAVE = 12
/** Px drawn beyond the view on either side, for a bar that a hand slides in. */
const MARGIN = 300
/** Milliseconds that the lanes have to rest before frames are asked for one by one. */
const REST = 160
/** Seen on the dark strip under the film in either light. */
const WAVE_COLOUR = 'rgb(200 198 192 / 75%)'

export interface BarFilmProps {
  layer: Layer
  rate: Rate
  scale: TimeScale
  height: number
}

/** Frames of the take along a bar and its waveform under them, for the part of the bar that is in view. */
export function BarFilm({ layer, rate, scale, height }: BarFilmProps) {
  const derived = useDerived()
  const canvas = useRef<HTMLCanvasElement>(null)
  const left = Math.max(-MARGIN, scale.x(layer.span.from))
  const right = Math.min(scale.width + MARGIN, scale.x(layer.span.to))
  const width = Math.max(0, right - left)
  useEffect(() => {
    const surface = canvas.current
    const source = asTake(layer.source)
    if (!surface || !derived || !source || width < 1) return
    const { digest, use } = source
    let resting = false
    const draw = () => {
      const ratio = devicePixelRatio
      surface.width = Math.round(width * ratio)
      surface.height = Math.round(height * ratio)
      const c = plainContext(surface)
      if (!c) return
      c.scale(ratio, ratio)
      const seconds = (x: number) => {
        const frame = Math.floor(scale.frame(x + left) + 1e-6) - layer.span.from
        return momentAt(layer.timing, Math.max(0, frame), rate).seconds
      }
      const peaks = use === 'picture' ? null : derived.peaks(digest)
      const shown = use === 'sound' ? 0 : peaks ? height - WAVE : height
      if (shown > 0) film(c, shown)
      if (peaks) wave(c, peaks, use === 'sound' ? height : WAVE, seconds)
    }
    const film = (c: CanvasRenderingContext2D, shown: number) => {
      const sheet = derived.sheet(digest)
      const tile = Math.max(8, shown * (sheet ? sheet.width / sheet.height : 16 / 9))
      // Zoomed in, a tile is a whole number of frames wide, so that each shows what lies under it.
      const step = Math.max(scale.perFrame, tile)
      const begins = scale.x(layer.span.from) - left
      const perTile = frameToSeconds(step / scale.perFrame, rate) * Math.abs(speedOf(layer.timing))
      const exact = resting && sheet !== null && perTile < sheet.every * 0.9
      for (let x = begins + Math.floor(Math.max(0, -begins) / step) * step; x < width; x += step) {
        const frame = Math.round(scale.frame(x + left) - layer.span.from)
        const at = Math.max(0, momentAt(layer.timing, Math.max(0, frame), rate).seconds)
        // A cut shows what it begins with, not what was just cut away.
        const isCut = resting && sheet !== null && frame <= 0 && at > 0
        const small = derived.frame(digest, at, exact || isCut)
        if (small) c.drawImage(small.source, small.x, small.y, small.width, small.height, x, 0, tile, shown)
        c.fillStyle = 'rgb(0 0 0 / 45%)'
        c.fillRect(x, 0, 1, shown)
      }
    }
    const wave = (c: CanvasRenderingContext2D, peaks: Uint8Array, tall: number, seconds: (x: number) => number) => {
      c.fillStyle = WAVE_COLOUR
      const middle = height - tall / 2
      for (let x = 0; x < width; x += 2) {
        const level = peakBetween(peaks, seconds(x), seconds(x + 2))
        const half = Math.max(0.5, Math.sqrt(level) * (tall / 2 - 1))
        c.fillRect(x, middle - half, 1.3, half * 2)
      }
    }
    draw()
    const rest = setTimeout(() => {
      resting = true
      draw()
    }, REST)
    const unsubscribe = derived.subscribe(draw)
    return () => {
      clearTimeout(rest)
      unsubscribe()
    }
  }, [derived, layer.source, layer.timing, layer.span, rate, scale, height, left, width])
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      className="pointer-events-none absolute inset-y-0"
      style={{ left: left - scale.x(layer.span.from), width, height }}
    />
  )
}
