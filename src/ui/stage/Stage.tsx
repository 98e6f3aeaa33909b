import { type MouseEvent, type PointerEvent, useEffect, useRef, useState } from 'react'
import { hearEarlyLetters } from '../../app/engine/early-letters'
import { placeTake } from '../../app/engine/place'
import {
  type Camera,
  cameraMoved,
  chosenLayer,
  handlingSet,
  projectOf,
  shotOf,
  stagedShot,
  store,
  takeOf,
  typingSet,
  useSend,
  useStore,
  zoomMeasured,
} from '../../app/store'
import { sample } from '../../core/keys'
import { edits, type Size } from '../../core/shot'
import { droppedFiles } from '../common/dropped-files'
import { wheelZoom } from '../common/wheel-zoom'
import { GradientHandles } from '../graphic/GradientHandles'
import { PinnedLetters } from '../graphic/PinnedLetters'
import { useBringIn } from '../takes/use-bring-in'
import { Aim } from './Aim'
import { Behind } from './Behind'
import { fitCamera, zoomAt } from './camera'
import { LayerHandles } from './LayerHandles'
import { Loupe } from './Loupe'
import { useHeldKey } from './outline/use-held-key'
import { SHAPE_VIEWS } from './shape-views'
import { spacePan } from './space-pan'
import { Tools } from './Tools'
import { TypeOver } from './TypeOver'
import { UnchosenPieces } from './UnchosenPieces'
import { UnderWay } from './UnderWay'
import { useGoingAlong } from './use-going-along'
import { Views } from './Views'
import { Ways } from './Ways'

/** The picture in its well, with everything that lies over it. */
export function Stage({ canvas }: { canvas: HTMLCanvasElement }) {
  const send = useSend()
  const well = useRef<HTMLDivElement>(null)
  const host = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<Size>({ width: 800, height: 480 })
  const [hand, setHand] = useState(false)
  const [space, setSpace] = useState(false)
  const [active, setActive] = useState(false)
  const [pointer, setPointer] = useState({ x: 0, y: 0 })
  const shot = useStore(stagedShot)
  const open = useStore(shotOf)
  const takes = useStore(s => projectOf(s)?.takes)
  const view = useStore(s => s.view)
  const chosen = useStore(chosenLayer)
  const layer = view.take ? null : chosen
  const [meeting, setMeeting] = useState<{ x: number | null; y: number | null }>({ x: null, y: null })
  const bring = useBringIn()
  const piece = layer?.matte.find(p => p.id === view.piece)
  // A first key gives the lanes another row, and the well less room: under the hand the picture stays where it is.
  const held = useRef<Camera | null>(null)
  const now = useRef<Camera | null>(null)
  held.current = active || (view.drawing && piece) ? (held.current ?? now.current) : null
  const camera = view.camera ?? held.current ?? (shot ? fitCamera(shot.size, size) : { zoom: 1, x: 0, y: 0 })
  now.current = camera
  const { zoom } = camera
  const isDrawing = view.drawing && piece !== undefined
  useGoingAlong(canvas, layer, piece)
  // The picture alone, as long as the key for that is held.
  const isAlone = useHeldKey('x')
  useEffect(() => void send(zoomMeasured(zoom)), [send, zoom])

  useEffect(() => {
    host.current?.append(canvas)
    return () => canvas.remove()
  }, [canvas])

  useEffect(() => {
    const element = well.current
    if (!element) return
    let last: Size | null = null
    const observer = new ResizeObserver(() => {
      const next = { width: element.clientWidth, height: element.clientHeight }
      const own = store.getState().view.camera
      // What was in the middle of the well stays there, but not under a hand.
      if (last && own && !held.current) {
        const [dx, dy] = [(next.width - last.width) / 2, (next.height - last.height) / 2]
        send(cameraMoved({ ...own, x: own.x + dx, y: own.y + dy }))
      }
      last = next
      setSize(next)
    })
    observer.observe(element)
    // React listens passively to wheels; this one has to keep the page from moving.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      const box = element.getBoundingClientRect()
      send(cameraMoved(zoomAt(now.current!, wheelZoom(event), event.clientX - box.left, event.clientY - box.top)))
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => {
      observer.disconnect()
      element.removeEventListener('wheel', onWheel)
    }
  }, [send])

  useEffect(() => (view.typing ? hearEarlyLetters() : undefined), [view.typing])
  const pan = useRef<{ x: number; y: number; camera: Camera } | null>(null)
  useEffect(() => {
    const typing = (event: KeyboardEvent) =>
      (event.target as HTMLElement).closest('input, textarea, [role=menu]') !== null
    const down = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || event.repeat || typing(event)) return
      spacePan.used = false
      setSpace(true)
    }
    const up = (event: KeyboardEvent) => {
      if (event.code !== 'Space') return
      setSpace(false)
      // The button pressed last must not be pressed again by the space bar that has panned.
      if (spacePan.used) event.preventDefault()
    }
    addEventListener('keydown', down)
    addEventListener('keyup', up)
    return () => {
      removeEventListener('keydown', down)
      removeEventListener('keyup', up)
    }
  }, [])

  const grabbing = hand || space
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 1 && !(event.button === 0 && grabbing)) return
    if (event.button !== 1) event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    pan.current = { x: event.clientX, y: event.clientY, camera: now.current! }
    if (space) spacePan.used = true
  }
  /** The middle button pans: it neither scrolls nor pastes, as it does elsewhere once it comes up. */
  const onMiddle = (event: MouseEvent) => {
    if (event.button === 1) event.preventDefault()
  }
  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    if (active) setPointer({ x: event.clientX - box.left, y: event.clientY - box.top })
    const from = pan.current
    if (from)
      send(
        cameraMoved({
          ...from.camera,
          x: from.camera.x + event.clientX - from.x,
          y: from.camera.y + event.clientY - from.y,
        }),
      )
  }
  const begin = (on: boolean) => {
    setActive(on)
    send(handlingSet(on))
    if (on) setPointer({ x: -999, y: -999 })
  }

  const shown = shot && { width: shot.size.width * camera.zoom, height: shot.size.height * camera.zoom }
  const { Handles, Hint } = SHAPE_VIEWS[piece?.shape.kind ?? 'edge']
  const isGraphic = layer?.source.kind === 'lettering' || layer?.source.kind === 'panel'
  const free = layer && !piece && open && takes && !view.playing && !layer.locked
  const placing = free && (view.section === 'place' || (view.section === 'source' && layer.source.kind === 'lettering'))
  const choosing = free && !placing && layer.matteOn && view.view !== 'cut-out'
  const filling = free && isGraphic && view.section === 'source'
  const visible =
    layer &&
    !layer.locked &&
    piece &&
    view.view !== 'cut-out' &&
    !view.playing &&
    layer.matteOn &&
    sample(piece.on, view.frame)
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: takes are dropped on it; by keyboard they are placed from their panel
    <div
      ref={well}
      data-testid="stage"
      className="group/well relative h-full min-h-0 overflow-hidden bg-well contain-strict"
      style={{ cursor: grabbing ? 'grab' : 'default' }}
      onDragOver={event => event.preventDefault()}
      onDrop={event => {
        event.preventDefault()
        const take = takeOf(store.getState(), event.dataTransfer.getData('application/x-take'))
        if (take) placeTake(take, {})
        else void droppedFiles(event.dataTransfer).then(files => bring(files, true))
      }}
      onPointerDownCapture={onPointerDown}
      onPointerMoveCapture={onPointerMove}
      onPointerUpCapture={() => {
        pan.current = null
      }}
      onMouseDownCapture={onMiddle}
      onMouseUpCapture={onMiddle}
    >
      <div
        ref={host}
        data-testid="picture"
        className={`absolute shadow-2xl shadow-black/50 [&>canvas]:block [&>canvas]:size-full ${view.view === 'cut-out' || view.into.length > 0 ? 'checker' : 'bg-black'}`}
        style={{ left: camera.x, top: camera.y, ...shown, imageRendering: camera.zoom >= 2 ? 'pixelated' : 'auto' }}
      />
      {layer && !layer.locked && !view.playing && !active && !isDrawing && view.view !== 'cut-out' && (
        <Ways layer={layer} piece={piece} frame={view.frame} camera={camera} />
      )}
      {visible && Handles && (
        <svg
          className="pointer-events-none absolute inset-0 size-full"
          role="group"
          aria-label="Handles of the chosen piece"
          style={{ opacity: active ? 0.45 : 1 }}
        >
          <Handles layer={layer} piece={piece} frame={view.frame} camera={camera} canvas={canvas} onActive={begin} />
        </svg>
      )}
      {choosing && !filling && (
        <UnchosenPieces
          layer={layer}
          frame={view.frame}
          camera={camera}
          sizeOf={of => (of.pinnedTo === 'shot' ? open.size : edits.layerSize(layer, open, takes))}
        />
      )}
      {visible && Hint && !isAlone && <Hint piece={piece} />}
      <Aim camera={camera} />
      {placing && !view.typing && (
        <svg className="pointer-events-none absolute inset-0 size-full" role="group" aria-label="Handles of the layer">
          <LayerHandles
            layer={layer}
            size={edits.layerSize(layer, open, takes)}
            shot={open.size}
            frame={view.frame}
            camera={camera}
            onActive={() => {}}
            onCorner={begin}
            onMeeting={setMeeting}
            onOpen={() => layer.source.kind === 'lettering' && send(typingSet(true))}
          />
          <g stroke="#e8e27a" strokeDasharray="4 3" data-testid="meeting-lines">
            {meeting.x !== null && (
              <line
                x1={camera.x + meeting.x * camera.zoom}
                x2={camera.x + meeting.x * camera.zoom}
                y1="0"
                y2={size.height}
              />
            )}
            {meeting.y !== null && (
              <line
                y1={camera.y + meeting.y * camera.zoom}
                y2={camera.y + meeting.y * camera.zoom}
                x1="0"
                x2={size.width}
              />
            )}
          </g>
        </svg>
      )}
      {filling && !view.typing && (
        <svg className="pointer-events-none absolute inset-0 size-full" role="group" aria-label="Handles of the fill">
          <GradientHandles layer={layer} frame={view.frame} camera={camera} onActive={begin} />
        </svg>
      )}
      {layer?.pin && layer.source.kind === 'lettering' && !view.readOnly && (
        <PinnedLetters key={`${layer.id} pinned`} layer={layer} />
      )}
      {filling && view.typing && <TypeOver key={layer.id} layer={layer} frame={view.frame} camera={camera} />}
      {active && shot && (
        <Loupe
          picture={canvas}
          zoom={(shot.size.width / canvas.width) * camera.zoom}
          left={camera.x}
          top={camera.y}
          {...pointer}
        />
      )}
      <Behind canvas={canvas} />
      <UnderWay />
      {view.failed.length > 0 && (
        <p
          className="absolute top-3 left-1/2 -translate-x-1/2 rounded-full bg-ground px-3 py-1 text-warn"
          role="status"
        >
          ◆ A take gives no picture on this frame
        </p>
      )}
      {/* While points are put down nothing floats between the hand and the picture. */}
      <div inert={isDrawing} className={`transition-opacity ${isDrawing || isAlone ? 'opacity-0' : ''}`}>
        <Tools hand={hand} onHand={setHand} />
        <Views camera={camera} well={size} />
      </div>
    </div>
  )
}
