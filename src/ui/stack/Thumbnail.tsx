import { useEffect, useRef } from 'react'
import { shotOf, useStore } from '../../app/store'
import type { Layer } from '../../core/shot'
import { plainContext } from '../common/plain-canvas'
import { useEngine } from '../stage/engine-context'

const WIDTH = 152

/** What a layer contributes at the playhead right now, matte applied. */
export function Thumbnail({ layer }: { layer: Layer }) {
  const engine = useEngine()
  const frame = useStore(s => (s.view.playing ? null : s.view.frame))
  const size = useStore(s => shotOf(s)?.size)
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    if (!engine || frame === null) return
    let wanted = true
    engine
      .thumbnail(frame, layer.id, WIDTH, () => wanted)
      .then(bitmap => {
        const c = canvas.current
        if (!wanted || !c || !bitmap) return
        c.width = bitmap.width
        c.height = bitmap.height
        plainContext(c)?.drawImage(bitmap, 0, 0)
      })
      .catch(error => console.error('No thumbnail could be made:', error))
    return () => {
      wanted = false
    }
  }, [engine, frame, layer])
  const { width, height } = size ?? { width: 16, height: 9 }
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      className={`checker h-[43px] shrink-0 rounded-md ${layer.on ? '' : 'opacity-30'}`}
      style={{ width: Math.min(76, (43 * width) / height), objectFit: 'contain' }}
    />
  )
}
