import { useEffect, useRef } from 'react'

const SIZE = 132
const POWER = 4

/** The picture round the pointer, four times its pixels, while something is dragged. */
export function Loupe({
  picture,
  zoom,
  left,
  top,
  x,
  y,
}: {
  picture: HTMLCanvasElement
  zoom: number
  left: number
  top: number
  x: number
  y: number
}) {
  const glass = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const c = glass.current?.getContext('2d')
    if (!c) return
    const side = SIZE / POWER
    const px = (x - left) / zoom
    const py = (y - top) / zoom
    const draw = () => {
      c.imageSmoothingEnabled = false
      c.fillStyle = '#242424'
      c.fillRect(0, 0, SIZE, SIZE)
      c.drawImage(picture, px - side / 2, py - side / 2, side, side, 0, 0, SIZE, SIZE)
    }
    // Once a picture of the screen: to read what another thread paints takes its time.
    const later = requestAnimationFrame(draw)
    return () => cancelAnimationFrame(later)
  }, [picture, zoom, left, top, x, y])
  return (
    <canvas
      ref={glass}
      width={SIZE}
      height={SIZE}
      aria-hidden="true"
      className="pointer-events-none absolute z-20 rounded-full border-2 border-ghost shadow-lg shadow-black/60"
      style={{ left: x + 28, top: Math.max(8, y - SIZE - 28) }}
    />
  )
}
