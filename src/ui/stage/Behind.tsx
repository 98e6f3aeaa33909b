// Says that a frame is being made, where that takes longer than a blink.
import { LoaderCircle } from 'lucide-react'
import { useEffect, useState } from 'react'

/** Milliseconds after which nothing said would look like nothing done. */
const BLINK = 500

export function Behind({ canvas }: { canvas: HTMLCanvasElement }) {
  const [isLate, setLate] = useState(false)
  useEffect(() => {
    let timer = 0
    const look = () => {
      window.clearTimeout(timer)
      if (canvas.dataset.state === 'behind') timer = window.setTimeout(() => setLate(true), BLINK)
      else setLate(false)
    }
    const watch = new MutationObserver(look)
    watch.observe(canvas, { attributeFilter: ['data-state'] })
    return () => {
      watch.disconnect()
      window.clearTimeout(timer)
    }
  }, [canvas])
  if (!isLate) return null
  return (
    <p
      className="absolute top-3 left-1/2 flex -translate-x-1/2 items-center gap-2 rounded-full bg-ground px-3 py-1"
      role="status"
    >
      <LoaderCircle size={14} className="animate-spin text-lime motion-reduce:animate-none" /> Making this frame…
    </p>
  )
}
