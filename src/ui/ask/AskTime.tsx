// Questions about time: hold, loop, stutter, speed.
import { useState } from 'react'
import { edit, projectOf, useSend, useStore } from '../../app/store'
import { asTake, type Layer, type LoopStyle, possibleSpeed, type Shot } from '../../core/shot'
import { lengthText } from '../../core/time'
import { Choice } from '../common/Choice'
import { LOOP_STYLES } from '../common/loop-styles'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { Ask } from './Ask'
import { useTrial } from './use-trial'

export interface AskProps {
  layer: Layer
  shot: Shot
  onClose: () => void
}

const useTakes = () => useStore(s => projectOf(s)?.takes ?? [])

export function AskHold({ layer, shot, onClose }: AskProps) {
  const send = useSend()
  const frame = useStore(s => s.view.frame)
  const [frames, setFrames] = useState(Math.round(shot.rate.num / shot.rate.den))
  const [push, setPush] = useState(true)
  return (
    <Ask
      title={`Hold “${layer.name}” still`}
      action="Hold"
      onClose={onClose}
      onDone={() => {
        send(edit('holdLayer', layer.id, frame, frames, push))
        onClose()
      }}
      note={
        push
          ? 'It stands still from the playhead on; what follows comes later by as much.'
          : 'It stands still from the playhead on, then goes on as if it had never stopped.'
      }
    >
      <NumberField label="For" unit="f" value={frames} min={1} max={100_000} initial={25} onChange={setFrames} />
      <Toggle label="Push what follows" on={push} onChange={setPush} />
    </Ask>
  )
}

/** A loop, seen as it is being set. */
export function AskLoop({ layer, shot, onClose }: AskProps) {
  const takes = useTakes()
  // As it was before the question: what is tried out changes it.
  const [{ from, to }] = useState(layer.span)
  const [first, setFirst] = useState(from + 1)
  const [last, setLast] = useState(to)
  const [style, setStyle] = useState<LoopStyle>('cut')
  const [over, setOver] = useState(6)
  const [until, setUntil] = useState(Math.max(shot.length, to))
  const length = last - first + 1
  const choice = { from: first - 1, to: last, style, over, until }
  const takeBack = useTrial('loopLayer', length < 1 ? null : [layer.id, choice, takes])
  return (
    <Ask
      title={`Loop “${layer.name}”`}
      action="Loop"
      disabled={length < 1}
      onDone={onClose}
      onClose={() => {
        takeBack()
        onClose()
      }}
      note={`${lengthText(Math.max(0, length), shot.rate)} again and again, up to frame ${until}.`}
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <NumberField label="First frame" value={first} min={from + 1} max={to} initial={from + 1} onChange={setFirst} />
        <NumberField label="Last frame" value={last} min={from + 1} max={to} initial={to} onChange={setLast} />
        <NumberField
          label="Up to frame"
          value={until}
          min={to}
          max={1_000_000}
          initial={shot.length}
          onChange={setUntil}
        />
        {style === 'dissolve' && (
          <NumberField label="Over" unit="f" value={over} min={1} max={10_000} initial={6} onChange={setOver} />
        )}
      </div>
      <Choice label="How it comes round" value={style} options={LOOP_STYLES} onChange={setStyle} />
    </Ask>
  )
}

export function AskStutter({ layer, shot, onClose }: AskProps) {
  const send = useSend()
  const frame = useStore(s => s.view.frame)
  const [frames, setFrames] = useState(8)
  const [times, setTimes] = useState(4)
  const [gap, setGap] = useState(0)
  const { from, to } = layer.span
  const at = frame > from && frame < to ? frame : from
  const tooLong = frames >= to - at
  return (
    <Ask
      title={`Stutter in “${layer.name}”`}
      action="Stutter"
      disabled={tooLong}
      onClose={onClose}
      onDone={() => {
        send(edit('stutterLayer', layer.id, at, frames, times, gap))
        onClose()
      }}
      note={
        tooLong
          ? 'There are not so many frames left in this layer.'
          : `From frame ${at + 1} on, ${frames} frames ${times} times, each a layer of its own; then it goes on ${lengthText((times - 1) * frames + times * gap, shot.rate)} later.`
      }
    >
      <NumberField
        label="Frames to repeat"
        unit="f"
        value={frames}
        min={1}
        max={10_000}
        initial={8}
        onChange={setFrames}
      />
      <NumberField label="How many times" value={times} min={1} max={60} initial={4} onChange={setTimes} />
      <NumberField label="Gap between them" unit="f" value={gap} min={0} max={10_000} initial={0} onChange={setGap} />
    </Ask>
  )
}

export function AskSpeed({ layer, shot, onClose }: AskProps) {
  const send = useSend()
  const takes = useTakes()
  const { timing } = layer
  const now = timing.kind === 'freeze' ? 1 : timing.speed
  const [speed, setSpeed] = useState(now * 100)
  const [mixed, setMixed] = useState(timing.kind === 'play' && timing.mixed !== null)
  const possible = possibleSpeed(speed / 100)
  const source = asTake(layer.source)
  const take = source && takes.find(t => t.digest === source.digest)
  const film = take?.picture?.kind === 'film' ? take.picture : null
  const frames = layer.span.to - layer.span.from
  const longer = possible ? Math.max(1, Math.round((frames * Math.abs(now)) / Math.abs(possible))) : frames
  return (
    <Ask
      title={`Speed of “${layer.name}”`}
      action="Set"
      disabled={possible === null}
      onClose={onClose}
      onDone={() => {
        if (possible === null) return
        if (possible !== now) send(edit('setSpeed', layer.id, possible, takes))
        if (film && timing.kind === 'play')
          send(edit('mixFrames', layer.id, mixed ? film.rate.den / film.rate.num : null))
        onClose()
      }}
      note={
        possible === null
          ? 'A speed of nothing is a freeze: use that instead.'
          : timing.kind === 'loop'
            ? 'The loop goes round faster or slower; its bar stays as long as it is.'
            : `The same part then takes ${lengthText(longer, shot.rate)}${possible < 0 ? ', backwards' : ''}. Its sound goes along at its new pitch.`
      }
    >
      <NumberField
        label="Speed (negative: backwards)"
        unit="%"
        value={speed}
        min={-10_000}
        max={10_000}
        digits={2}
        initial={100}
        onChange={setSpeed}
      />
      {film && timing.kind === 'play' && (
        <Toggle label="Mix neighbouring frames when slow" on={mixed} onChange={setMixed} />
      )}
    </Ask>
  )
}
