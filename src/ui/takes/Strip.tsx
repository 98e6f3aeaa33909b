import { useEffect, useRef } from 'react'
import type { Take } from '../../core/shot'
import { takeSeconds } from '../../core/shot'
import { peakBetween } from '../../core/sound'
import { plainContext } from '../common/plain-canvas'
import { useDerived } from '../stage/engine-context'

/** Px high unless somebody says otherwise. */
const HEIGHT = 34

/** A take at a glance: frames from its beginning to its end, or how loud it is. */
export function Strip({ take, height = HEIGHT }: { take: Take; height?: number }) {
  const derived = useDerived()
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const surface = canvas.current
    if (!surface || !derived) return
    const draw = () => {
      const ratio = devicePixelRatio
      const width = surface.clientWidth
      surface.width = Math.round(width * ratio)
      surface.height = Math.round(height * ratio)
      const c = plainContext(surface)
      if (!c) return
      c.scale(ratio, ratio)
      const seconds = Number.isFinite(takeSeconds(take)) ? takeSeconds(take) : 1
      const sheet = derived.sheet(take.digest)
      if (sheet) {
        const tile = (height * sheet.width) / sheet.height
        for (let x = 0; x < width; x += tile) {
          const small = derived.frame(take.digest, ((x + tile / 2) / width) * seconds, false)
          if (small) c.drawImage(small.source, small.x, small.y, small.width, small.height, x, 0, tile, height)
        }
      } else if (!take.picture) {
        const peaks = derived.peaks(take.digest)
        c.fillStyle = getComputedStyle(surface).color
        for (let x = 0; peaks && x < width; x += 2) {
          const half =
            Math.sqrt(peakBetween(peaks, (x / width) * seconds, ((x + 2) / width) * seconds)) * (height / 2 - 2)
          c.fillRect(x, height / 2 - Math.max(0.5, half), 1.3, Math.max(1, half * 2))
        }
      }
    }
    // Told of its size at once, and when the panel is folded, brought back or pulled.
    const sized = new ResizeObserver(draw)
    sized.observe(surface)
    const unsubscribe = derived.subscribe(draw)
    return () => {
      sized.disconnect()
      unsubscribe()
    }
  }, [derived, take, height])
  return <canvas ref={canvas} aria-hidden="true" className="block w-full text-ink/60" style={{ height }} />
}
