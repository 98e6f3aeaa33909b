import { edit, editIn, projectOf, shotOf, useSend, useStore } from '../../app/store'
import { asTake, type Layer, sourceKind, type Timing } from '../../core/shot'
import { frameToSeconds } from '../../core/time'
import { Choice } from '../common/Choice'
import { LOOP_STYLES } from '../common/loop-styles'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { CommandButton } from './CommandButton'

type Loop = Extract<Timing, { kind: 'loop' }>

function LoopFields({ layer, timing, fixed }: { layer: Layer; timing: Loop; fixed: boolean }) {
  const send = useSend()
  const rate = useStore(s => shotOf(s)?.rate) ?? { num: 25, den: 1 }
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const frames = (seconds: number) => Math.round((seconds * rate.num) / rate.den)
  const change = (changes: Partial<Pick<Loop, 'from' | 'to' | 'style' | 'over'>>, gesture: string) =>
    send(editIn(gesture, 'changeLoop', layer.id, changes, takes))
  return (
    <>
      <NumberField
        label="Loop from"
        unit="f"
        value={frames(timing.from)}
        min={0}
        initial={0}
        disabled={fixed}
        onChange={(f, gesture) => change({ from: frameToSeconds(f, rate) }, gesture)}
      />
      <NumberField
        label="up to"
        unit="f"
        value={frames(timing.to)}
        min={1}
        initial={frames(timing.to)}
        disabled={fixed}
        onChange={(f, gesture) => change({ to: frameToSeconds(f, rate) }, gesture)}
      />
      <div className="col-span-2">
        <Choice
          label="How it comes round"
          value={timing.style}
          options={LOOP_STYLES}
          disabled={fixed}
          onChange={style => change({ style }, `loop style ${style}`)}
        />
      </div>
      {timing.style === 'dissolve' && (
        <NumberField
          label="Over"
          unit="f"
          value={timing.over}
          min={0}
          initial={6}
          disabled={fixed}
          onChange={(over, gesture) => change({ over }, gesture)}
        />
      )}
    </>
  )
}

function SpeedFields({
  layer,
  timing,
  fixed,
}: {
  layer: Layer
  timing: Exclude<Timing, { kind: 'freeze' }>
  fixed: boolean
}) {
  const send = useSend()
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const source = asTake(layer.source)
  const take = source && takes.find(t => t.digest === source.digest)
  const film = take?.picture?.kind === 'film' ? take.picture : null
  return (
    <>
      <NumberField
        label="Speed"
        unit="%"
        digits={2}
        value={timing.speed * 100}
        min={-10_000}
        max={10_000}
        initial={100}
        disabled={fixed}
        onChange={(percent, gesture) => send(editIn(gesture, 'setSpeed', layer.id, percent / 100, takes))}
      />
      {film && timing.kind === 'play' && Math.abs(timing.speed) < 1 && (
        <Toggle
          label="Mix frames"
          on={timing.mixed !== null}
          disabled={fixed}
          onChange={on => send(edit('mixFrames', layer.id, on ? film.rate.den / film.rate.num : null))}
        />
      )}
    </>
  )
}

/** When a layer shows and how time runs in it. */
export function TimeSection({ layer }: { layer: Layer }) {
  const send = useSend()
  const shot = useStore(shotOf)
  const takes = useStore(s => projectOf(s)?.takes) ?? []
  const readOnly = useStore(s => s.view.readOnly)
  const fixed = readOnly || layer.locked
  const { timing, span } = layer
  const length = span.to - span.from
  /** What stands still has no time of its own. */
  const runs = Number.isFinite(sourceKind(layer.source).seconds(layer.source, takes)) || timing.kind !== 'play'
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-1.5 pt-2">
      <NumberField
        label="Begins at"
        unit="f"
        value={span.from}
        min={1 - length}
        max={(shot?.length ?? 1) - 1}
        initial={0}
        disabled={fixed}
        onChange={(from, gesture) => send(editIn(gesture, 'slideLayers', [{ layer: layer.id, from }]))}
      />
      <NumberField
        label="Lasts"
        unit="f"
        value={length}
        min={1}
        initial={length}
        disabled={fixed}
        onChange={(frames, gesture) =>
          send(editIn(gesture, 'trimLayers', 'to', [{ layer: layer.id, frame: span.from + frames }], takes))
        }
      />
      <NumberField
        label="Fade in"
        unit="f"
        value={layer.fade.in}
        min={0}
        initial={0}
        disabled={fixed}
        onChange={(frames, gesture) => send(editIn(gesture, 'setFade', layer.id, 'picture', { in: frames }))}
      />
      <NumberField
        label="Fade out"
        unit="f"
        value={layer.fade.out}
        min={0}
        initial={0}
        disabled={fixed}
        onChange={(frames, gesture) => send(editIn(gesture, 'setFade', layer.id, 'picture', { out: frames }))}
      />
      {timing.kind === 'loop' && <LoopFields layer={layer} timing={timing} fixed={fixed} />}
      {runs && timing.kind !== 'freeze' && <SpeedFields layer={layer} timing={timing} fixed={fixed} />}
      <div className="col-span-2 flex flex-wrap gap-1 pt-1">
        {timing.kind !== 'play' && <CommandButton id="unfreeze">Let it run</CommandButton>}
        {runs && timing.kind === 'play' && (
          <>
            <CommandButton id="freeze">Freeze</CommandButton>
            <CommandButton id="hold">Hold…</CommandButton>
            <CommandButton id="loop">Loop…</CommandButton>
          </>
        )}
        {runs && <CommandButton id="stutter">Stutter…</CommandButton>}
        <CommandButton id="copies">
          {layer.copies ? `Row of ${layer.copies.count + 1}…` : 'Row of copies…'}
        </CommandButton>
        {runs && timing.kind !== 'freeze' && <CommandButton id="backwards">Turn round</CommandButton>}
      </div>
    </div>
  )
}
