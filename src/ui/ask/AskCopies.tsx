import { useRef, useState } from 'react'
import { edit, useSend } from '../../app/store'
import { type Copies, LIMITS } from '../../core/shot'
import { lengthText } from '../../core/time'
import { NumberField } from '../common/NumberField'
import { Ask } from './Ask'
import type { AskProps } from './AskTime'
import { useTrial } from './use-trial'

const FIRST: Copies = { count: 6, later: 8, x: 0, y: 0, keep: 1 }

/** A row of copies, seen as it is being set: all of it is one step of the history. */
export function AskCopies({ layer, shot, onClose }: AskProps) {
  const send = useSend()
  const before = useRef(layer.copies)
  const [copies, setCopies] = useState<Copies>(layer.copies ?? FIRST)
  const id = layer.id
  const takeBack = useTrial('setCopies', [id, copies])
  const change = (changes: Partial<Copies>) => setCopies({ ...copies, ...changes })
  const leave = () => {
    takeBack()
    onClose()
  }
  return (
    <Ask
      title={`A row of “${layer.name}”`}
      action="Keep the row"
      onDone={onClose}
      onClose={leave}
      note={`${copies.count + 1} in all, the last ${lengthText(Math.abs(copies.later) * copies.count, shot.rate)} ${copies.later < 0 ? 'earlier' : 'later'}. Only the first is heard.`}
      besides={
        before.current && (
          <button
            type="button"
            className="rounded-full bg-raised px-3 py-1.5 whitespace-nowrap"
            onClick={() => {
              send(edit('setCopies', id, null))
              onClose()
            }}
          >
            No copies
          </button>
        )
      }
    >
      <NumberField
        label="Copies"
        value={copies.count}
        min={1}
        max={LIMITS.copies}
        initial={6}
        onChange={count => change({ count })}
      />
      <NumberField
        label="Each later by"
        unit="f"
        value={copies.later}
        min={-100_000}
        max={100_000}
        initial={8}
        onChange={later => change({ later })}
      />
      <NumberField label="Each shifted across" unit="px" value={copies.x} initial={0} onChange={x => change({ x })} />
      <NumberField label="Each shifted down" unit="px" value={copies.y} initial={0} onChange={y => change({ y })} />
      <NumberField
        label="Each as strong as the one before"
        unit="%"
        value={copies.keep * 100}
        min={0}
        max={100}
        initial={100}
        onChange={keep => change({ keep: keep / 100 })}
      />
    </Ask>
  )
}
