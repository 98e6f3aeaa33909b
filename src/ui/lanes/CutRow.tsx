// Under a layer that is cut out by a plate: which frames are ready, and where somebody was told from the set only just.
import { useEffect, useRef } from 'react'
import { type FrameState, UNSURE } from '../../app/engine/cut-outs'
import type { Layer } from '../../core/shot'
import { plainContext } from '../common/plain-canvas'
import { useCutOuts, useEngine } from '../stage/engine-context'
import { KEY_ROW } from './KeyRow'
import { useLanes } from './lanes-context'

/** Px of the band of what is ready, and from which what is unsure rises. */
const BAND = 3
const FLOOR = KEY_ROW - 5

const colourOf = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(`--${name}`)

/** One column a frame: nothing for what is not ready, a band for what is, a bar as high as it is unsure with a lozenge where one begins. */
function draw(c: CanvasRenderingContext2D, states: readonly FrameState[], x: (frame: number) => number, wide: number) {
  const [ghost, warn, line] = [colourOf('ghost'), colourOf('warn'), colourOf('line')]
  const column = Math.max(1, wide)
  const isUnsure = (of: FrameState | undefined) => of?.state === 'ready' && of.unsure > UNSURE
  states.forEach((of, frame) => {
    if (of.state === 'none') return
    const at = x(frame)
    c.fillStyle = of.state === 'ready' ? ghost : line
    c.fillRect(at, FLOOR, column, of.state === 'ready' ? BAND : 1)
    if (of.state !== 'ready') return
    const high = Math.min(1, of.unsure) * (FLOOR - 2)
    c.fillStyle = isUnsure(of) ? warn : ghost
    c.globalAlpha = isUnsure(of) ? 1 : 0.45
    c.fillRect(at, FLOOR - high, column, high)
    c.globalAlpha = 1
    if (isUnsure(of) && !isUnsure(states[frame - 1])) {
      c.beginPath()
      c.moveTo(at, FLOOR + BAND - 5)
      c.lineTo(at + 4, FLOOR + BAND - 1)
      c.lineTo(at, FLOOR + BAND + 3)
      c.lineTo(at - 4, FLOOR + BAND - 1)
      c.fill()
    }
  })
}

/** Pressed it goes to that frame. */
export function CutRow({ layer, top }: { layer: Layer; top: number }) {
  const cutOuts = useCutOuts()
  const engine = useEngine()
  const { scale } = useLanes()
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const surface = canvas.current
    if (!surface || !cutOuts) return
    const paint = () => {
      surface.width = Math.round(scale.width * devicePixelRatio)
      surface.height = Math.round(KEY_ROW * devicePixelRatio)
      const c = plainContext(surface)
      const states = cutOuts.framesOf(layer.id)
      if (!c || !states) return
      c.scale(devicePixelRatio, devicePixelRatio)
      draw(c, states, scale.x, scale.perFrame)
      const ready = states.filter(s => s.state === 'ready').length
      const wanted = states.filter(s => s.state !== 'none').length
      surface.ariaLabel = `${layer.name}: ${ready} of ${wanted} frames are cut out`
    }
    paint()
    return cutOuts.subscribe(paint)
  }, [cutOuts, layer, scale])
  return (
    <canvas
      ref={canvas}
      role="img"
      data-cut-row={layer.name}
      className="absolute left-0 cursor-pointer"
      style={{ top, width: scale.width, height: KEY_ROW }}
      onPointerDown={event => {
        event.stopPropagation()
        engine?.goTo(Math.floor(scale.frame(event.nativeEvent.offsetX)))
      }}
    />
  )
}
