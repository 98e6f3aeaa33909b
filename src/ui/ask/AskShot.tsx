// Questions about the shot: its form, and the word at a frame.
import { useState } from 'react'
import { edit, useSend, useStore } from '../../app/store'
import { edits, LIMITS, type Shot } from '../../core/shot'
import { fps, lengthText, nearestRate } from '../../core/time'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { Ask } from './Ask'

interface Props {
  shot: Shot
  onClose: () => void
}

export function AskForm({ shot, onClose }: Props) {
  const send = useSend()
  const [width, setWidth] = useState(shot.size.width)
  const [height, setHeight] = useState(shot.size.height)
  const [rate, setRate] = useState(fps(shot.rate))
  const [length, setLength] = useState(shot.length)
  const [grow, setGrow] = useState(true)
  const next = nearestRate(rate)
  const form = { size: { width, height }, rate: next, length, grow }
  const sizeChanges = width !== shot.size.width || height !== shot.size.height
  return (
    <Ask
      title="Size, rate and length"
      action="Change"
      onClose={onClose}
      onDone={() => {
        send(edit('reformShot', form))
        onClose()
      }}
      note={
        <ul className="flex list-disc flex-col gap-1 pl-4">
          <li>{lengthText(length, next)} long.</li>
          {edits.reformTold(shot, form).map(sentence => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      }
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-2">
        <NumberField
          label="Width"
          unit="px"
          value={width}
          min={16}
          max={LIMITS.side}
          initial={1920}
          onChange={setWidth}
        />
        <NumberField
          label="Height"
          unit="px"
          value={height}
          min={16}
          max={LIMITS.side}
          initial={1080}
          onChange={setHeight}
        />
        <NumberField
          label="Frames a second"
          value={rate}
          min={1}
          max={240}
          digits={3}
          initial={25}
          onChange={value => {
            setLength(Math.max(1, Math.round((length * fps(nearestRate(value))) / fps(next))))
            setRate(value)
          }}
        />
        <NumberField
          label="Length"
          unit="f"
          value={length}
          min={1}
          max={LIMITS.length}
          initial={shot.length}
          onChange={setLength}
        />
      </div>
      {sizeChanges && <Toggle label="Layers grow with the frame" on={grow} onChange={setGrow} />}
    </Ask>
  )
}

export function AskMark({ shot, onClose }: Props) {
  const send = useSend()
  const frame = useStore(s => s.view.frame)
  const there = shot.marks.find(m => m.frame === frame)
  const [text, setText] = useState(there?.text ?? '')
  return (
    <Ask
      title={`Mark frame ${frame + 1}`}
      action={there ? 'Change' : 'Mark'}
      onClose={onClose}
      onDone={() => {
        send(edit('putMark', frame, text.trim()))
        onClose()
      }}
      besides={
        there && (
          <button
            type="button"
            className="rounded-full bg-raised px-4 py-1.5"
            onClick={() => {
              send(edit('dropMark', frame))
              onClose()
            }}
          >
            Take it away
          </button>
        )
      }
    >
      <input
        aria-label="Word at the mark"
        placeholder="door opens, line meets…"
        maxLength={80}
        className="rounded-md bg-ground px-2 py-1.5"
        value={text}
        onChange={event => setText(event.target.value)}
      />
    </Ask>
  )
}
