import { useEffect, useRef } from 'react'
import { useStore } from '../../app/store'
import { useEngine } from './engine-context'

const FLOOR = -48
const decibels = (level: number): number => 20 * Math.log10(Math.max(1e-6, level))
const share = (level: number): number => Math.max(0, Math.min(1, 1 - decibels(level) / FLOOR))

/** How loud left and right are while playing; a lozenge stays where it was too loud. */
export function Meter() {
  const engine = useEngine()
  const playing = useStore(s => s.view.playing)
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const c = canvas.current?.getContext('2d')
    const surface = canvas.current
    if (!engine || !c || !surface) return
    const held = [0, 0]
    let clipped = false
    let running = 0
    const draw = () => {
      const levels = playing ? engine.levels() : [0, 0]
      const { width, height } = surface
      const style = getComputedStyle(surface)
      c.clearRect(0, 0, width, height)
      levels.forEach((level, i) => {
        held[i] = Math.max(level, held[i]! * 0.94)
        if (level >= 0.999) clipped = true
        c.fillStyle = style.color
        c.fillRect(0, i * 8 + 1, width * share(level), 5)
        c.fillRect(Math.round(width * share(held[i]!)) - 1, i * 8 + 1, held[i]! > 0.003 ? 2 : 0, 5)
      })
      if (clipped) {
        c.fillStyle = style.getPropertyValue('--warn')
        c.fillText('◆', width - 9, 12)
      }
      if (playing) running = requestAnimationFrame(draw)
    }
    draw()
    return () => cancelAnimationFrame(running)
  }, [engine, playing])
  return (
    <span className="relative h-4 w-[60px] shrink-0">
      <span className="absolute inset-x-0 top-px h-[5px] bg-line" />
      <span className="absolute inset-x-0 top-[9px] h-[5px] bg-line" />
      <canvas
        ref={canvas}
        width={60}
        height={16}
        className="absolute inset-0 text-ghost"
        role="img"
        aria-label="How loud the mix is, left and right"
        title="How loud the mix is: left above, right below, from −48 dB to full"
        data-testid="meter"
      />
    </span>
  )
}
