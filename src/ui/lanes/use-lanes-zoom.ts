import { type RefObject, useEffect, useMemo, useRef } from 'react'
import { lanesMeasured, lanesZoomed, stagedFrame, store, useSend, useStore } from '../../app/store'
import { bringingIn, HEADS, scrolledBy, type TimeScale, timeScale, zoomedAt } from '../../app/time-scale'
import { wheelZoom } from '../common/wheel-zoom'

/** The lanes' scale: it zooms about the pointer, scrolls, and goes along with the playhead. */
export function useLanesZoom(host: RefObject<HTMLElement | null>, length: number): TimeScale {
  const send = useSend()
  const width = useStore(s => s.view.lanesWidth)
  const zoom = useStore(s => s.view.lanes)
  const scale = useMemo(() => timeScale(length, width, zoom), [length, width, zoom])
  const now = useRef({ scale, length })
  now.current = { scale, length }

  useEffect(() => {
    const element = host.current
    if (!element) return
    const observer = new ResizeObserver(() => send(lanesMeasured(Math.max(60, element.clientWidth - HEADS))))
    observer.observe(element)
    // React listens passively to wheels; this one has to keep the page from moving.
    const onWheel = (event: WheelEvent) => {
      const { scale, length } = now.current
      const box = element.getBoundingClientRect()
      const overRuler = event.clientY - box.top < 24
      const across = event.shiftKey ? event.deltaX || event.deltaY : event.deltaX
      if (event.ctrlKey || event.altKey || event.metaKey || (overRuler && !across)) {
        event.preventDefault()
        send(lanesZoomed(zoomedAt(scale, wheelZoom(event), event.clientX - box.left - HEADS, length)))
      } else if (across) {
        event.preventDefault()
        if (scale.perFrame * length > scale.width) send(lanesZoomed(scrolledBy(scale, across, length)))
      }
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => {
      observer.disconnect()
      element.removeEventListener('wheel', onWheel)
    }
  }, [host, send])

  // Only the playhead's own movement brings it into view; who scrolls away from it stays there.
  useEffect(() => {
    let at = stagedFrame(store.getState())
    return store.subscribe(() => {
      const frame = stagedFrame(store.getState())
      if (frame === at) return
      at = frame
      const { scale, length } = now.current
      const to = bringingIn(scale, frame, length)
      if (to && scale.perFrame * length > scale.width) send(lanesZoomed(to))
    })
  }, [send])
  return scale
}
