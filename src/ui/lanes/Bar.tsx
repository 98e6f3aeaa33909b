import { memo } from 'react'
import { commandOf } from '../../app/commands'
import { chosenIds, shotOf, useStore } from '../../app/store'
import { insideOf, type Layer, sourceKind, type Timing } from '../../core/shot'
import { tagColour } from '../common/tags'
import { SOURCE_VIEWS } from '../stack/source-views'
import { useEngine } from '../stage/engine-context'
import { useLanes } from './lanes-context'
import { useBarDrags } from './use-bar-drags'

export const BAR = 46

const percent = (speed: number): string => `${Number((speed * 100).toFixed(1))}%`

/** What is not ordinary about a layer's time, in a word. */
function timeWord(timing: Timing): string {
  if (timing.kind === 'freeze') return 'frozen'
  const speed = timing.speed === 1 ? '' : percent(timing.speed)
  if (timing.kind === 'play') return speed
  const style = { cut: 'loop', swing: 'there and back', dissolve: 'loop, dissolving' }[timing.style]
  return speed ? `${style}, ${speed}` : style
}

function Fades({ layer }: { layer: Layer }) {
  const { scale } = useLanes()
  const width = (layer.span.to - layer.span.from) * scale.perFrame
  const px = (frames: number) => frames * scale.perFrame
  const { fade, sound } = layer
  return (
    <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden="true">
      <g fill="black" fillOpacity="0.55">
        {fade.in > 0 && <path d={`M0 0H${px(fade.in)}L0 ${BAR}z`} />}
        {fade.out > 0 && <path d={`M${width} 0H${width - px(fade.out)}L${width} ${BAR}z`} />}
      </g>
      <g stroke="currentColor" className="text-ink/70" fill="none">
        {sound.fade.in > 0 && <path d={`M0 ${BAR}L${px(sound.fade.in)} ${BAR - 13}`} />}
        {sound.fade.out > 0 && <path d={`M${width} ${BAR}L${width - px(sound.fade.out)} ${BAR - 13}`} />}
      </g>
    </svg>
  )
}

/** A layer in time, with everything a hand can take hold of. */
export const Bar = memo(function Bar({ layer }: { layer: Layer }) {
  const { scale } = useLanes()
  const engine = useEngine()
  const rate = useStore(s => shotOf(s)?.rate)
  const chosen = useStore(s => chosenIds(s).includes(layer.id))
  const open = useStore(s => s.view.layer === layer.id)
  const dimmed = useStore(s => !layer.on || (s.view.alone.length > 0 && !s.view.alone.includes(layer.id)))
  const { body, from, to, fades, forget } = useBarDrags(layer)
  const { span } = layer
  const width = Math.max(4, (span.to - span.from) * scale.perFrame)
  const hasSound = sourceKind(layer.source).hasSound(layer.source)
  const corner = (
    label: string,
    side: 'left' | 'right',
    edge: 'top' | 'bottom',
    frames: number,
    handlers: object,
    reset: () => void,
  ) => (
    // biome-ignore lint/a11y/noStaticElementInteractions: the same can be typed in the layer's card
    <span
      title={`${label}. Drag; double-click takes it away`}
      data-fade={label}
      className={`absolute z-10 flex size-4 cursor-ew-resize touch-none items-center justify-center ${edge === 'top' ? '-top-1' : '-bottom-1'} ${open ? '' : 'opacity-0 group-hover:opacity-100'}`}
      style={{ [side]: Math.max(0, Math.min(width / 2 - 8, frames * scale.perFrame)) - 2 }}
      onDoubleClick={reset}
      {...handlers}
    >
      <span className={`block size-2 border border-ground bg-ink ${edge === 'top' ? 'rounded-full' : 'rotate-45'}`} />
    </span>
  )
  const view = SOURCE_VIEWS[layer.source.kind]
  const word = timeWord(layer.timing)
  const name = `${layer.name}, frames ${span.from + 1} to ${span.to}`
  const x = scale.x(span.from)
  return (
    <div
      className={`group absolute top-0.5 ${dimmed ? 'opacity-40' : ''}`}
      style={{ left: x, width, height: BAR }}
      data-bar={layer.name}
      data-layer-id={layer.id}
    >
      <button
        type="button"
        aria-pressed={chosen}
        aria-label={`${name}. Drag to slide, its ends to trim; with Alt to slip`}
        className={`absolute inset-0 touch-none overflow-hidden rounded-md bg-[#202020] text-left ${layer.locked ? 'cursor-default' : 'cursor-grab'} ${
          open ? 'outline-2 -outline-offset-1 outline-lime' : chosen ? 'outline-1 -outline-offset-1 outline-lime' : ''
        }`}
        {...body}
        onDoubleClick={() => insideOf(layer.source) && engine && commandOf('enter-group').run(engine)}
      >
        {rate && view.Film && <view.Film layer={layer} rate={rate} scale={scale} height={BAR} />}
        <Fades layer={layer} />
        {layer.locked && (
          <span
            className="absolute inset-0"
            style={{ background: 'repeating-linear-gradient(115deg, transparent 0 9px, rgb(0 0 0 / 35%) 9px 12px)' }}
          />
        )}
        <span className="absolute inset-x-0 top-0 h-5">
          {/* What is written stays in view when the bar begins before it, also while a hand slides the bar. */}
          <span
            className="flex h-[18px] w-fit max-w-full items-center gap-1.5 rounded-br-md bg-[#161616]/90 px-2 text-xs text-white"
            style={{ transform: x < 0 ? `translateX(max(0px, ${-x}px - var(--slid, 0px)))` : undefined }}
          >
            {layer.tag !== 'none' && (
              <span className="size-2 shrink-0 rounded-[2px]" style={{ background: tagColour(layer.tag) }} />
            )}
            <span className="truncate font-bold">{layer.name}</span>
            {word && <span className="shrink-0 opacity-80">{word}</span>}
            {layer.copies && <span className="shrink-0 opacity-80">×{layer.copies.count + 1}</span>}
            {view.badge && <span className="shrink-0 opacity-80">{view.badge}</span>}
          </span>
        </span>
      </button>
      {!layer.locked && (
        <>
          <span
            className="absolute inset-y-0 -left-0.5 z-10 w-2 cursor-w-resize touch-none"
            data-end="from"
            {...from}
          />
          <span className="absolute inset-y-0 -right-0.5 z-10 w-2 cursor-e-resize touch-none" data-end="to" {...to} />
          {width > 50 && (
            <>
              {corner('Fade in', 'left', 'top', layer.fade.in, fades.pictureIn, forget('picture', 'in'))}
              {corner('Fade out', 'right', 'top', layer.fade.out, fades.pictureOut, forget('picture', 'out'))}
              {hasSound && (
                <>
                  {corner('Sound in', 'left', 'bottom', layer.sound.fade.in, fades.soundIn, forget('sound', 'in'))}
                  {corner('Sound out', 'right', 'bottom', layer.sound.fade.out, fades.soundOut, forget('sound', 'out'))}
                </>
              )}
            </>
          )}
        </>
      )}
    </div>
  )
})
