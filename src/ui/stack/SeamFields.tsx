// The join between two takes along an edge: found, matched in light, and how much of it is left over time.
import { type PointerEvent, useEffect, useRef } from 'react'
import { useStore } from '../../app/store'
import { isKeyed } from '../../core/keys'
import { shapeValue } from '../../core/shape'
import type { Piece } from '../../core/shot'
import { plainContext } from '../common/plain-canvas'
import { useEngine } from '../stage/engine-context'
import { CommandButton } from './CommandButton'

const HEIGHT = 26
/** Share of full light that fills the strip's height at least, and beyond which the eye finds a join. */
const FULL = 0.03
const SEEN = 0.012

const percent = (share: number): string => `${(share * 100).toFixed(1)}%`

/** What was left along a seam when it was measured, frame by frame; pressed it goes there. */
function Left({ piece }: { piece: Piece }) {
  const engine = useEngine()
  const seam = useStore(s => s.seams[piece.id])
  const frame = useStore(s => s.view.frame)
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const surface = canvas.current
    if (!surface || !seam) return
    const { clientWidth: width } = surface
    surface.width = width
    surface.height = HEIGHT
    const c = plainContext(surface)
    if (!c) return
    const style = getComputedStyle(document.documentElement)
    const colour = (name: string) => style.getPropertyValue(`--${name}`)
    const { frames, left } = seam
    const [first, last] = [frames[0]!, frames.at(-1)!]
    const x = (at: number) => ((at - first) / Math.max(1, last - first)) * (width - 2) + 1
    const most = Math.max(FULL, ...left)
    const y = (share: number) => HEIGHT - 2 - (share / most) * (HEIGHT - 4)
    c.strokeStyle = colour('line')
    c.strokeRect(0, y(SEEN), width, 0)
    c.strokeStyle = colour(Math.max(...left) > SEEN ? 'warn' : 'ghost')
    c.lineWidth = 1.5
    c.beginPath()
    left.forEach((share, i) => {
      c.lineTo(x(frames[i]!), y(share))
    })
    c.stroke()
    c.fillStyle = colour('lime')
    if (frame >= first && frame <= last) c.fillRect(x(frame), 0, 1, HEIGHT)
  }, [seam, frame])
  if (!seam) return null
  const { frames, left, feather } = seam
  const mean = left.reduce((sum, v) => sum + v / left.length, 0)
  const worst = Math.max(...left)
  const goTo = (event: PointerEvent<HTMLCanvasElement>) => {
    const share = event.nativeEvent.offsetX / event.currentTarget.clientWidth
    engine?.goTo(Math.round(frames[0]! + share * (frames.at(-1)! - frames[0]!)))
  }
  return (
    <>
      <p className={worst > SEEN ? 'text-warn' : 'text-ghost'} role="status">
        {worst > SEEN && '◆ '}
        {percent(mean)} is left along it, {percent(worst)} at most; {feather} px of feather hide it
      </p>
      <canvas
        ref={canvas}
        aria-label="What is left along the seam over time"
        role="img"
        className="block w-full cursor-pointer rounded bg-ground"
        style={{ height: HEIGHT }}
        onPointerDown={goTo}
      />
    </>
  )
}

/** The same of a seam that bends, which is an outline from then on. */
export function BentSeamFields({ piece }: { piece: Piece }) {
  return (
    <div className="col-span-2 flex flex-col gap-1.5 text-xs text-quiet empty:hidden">
      <Left piece={piece} />
    </div>
  )
}

export function SeamFields({ piece }: { piece: Piece }) {
  return (
    <div className="col-span-2 flex flex-col gap-1.5 text-xs text-quiet">
      <div className="flex flex-wrap gap-1">
        <CommandButton id="match-behind">Match the light</CommandButton>
        <CommandButton id="seam">Find the seam</CommandButton>
        <CommandButton id="seam-bend">Let it bend</CommandButton>
        <CommandButton id="seam-measure">Measure it</CommandButton>
      </div>
      {isKeyed(shapeValue(piece.shape)) && (
        <p>This edge moves by keys of its own: a seam is found for one that stands still.</p>
      )}
      <Left piece={piece} />
    </div>
  )
}
