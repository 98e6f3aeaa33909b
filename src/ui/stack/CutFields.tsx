// A piece that is somebody cut out by a plate: which plate, when nobody is in it, and how little tells somebody.
import { useEffect, useState } from 'react'
import { placePlate } from '../../app/engine/place'
import { paintedMoment } from '../../app/painted-moment'
import { brushSet, edit, projectOf, shotOf, store, useSend, useStore } from '../../app/store'
import { isKeyed } from '../../core/keys'
import { type Cut, isTold } from '../../core/plate/recipe'
import { isOn } from '../../core/plate/strokes'
import { shapeAt, shapeValue } from '../../core/shape'
import { asTake, type Layer, LIMITS, type Piece, type Take } from '../../core/shot'
import { TextButton } from '../common/Button'
import { Choice } from '../common/Choice'
import { NumberField } from '../common/NumberField'
import { useCutOuts } from '../stage/engine-context'
import { MakePlate } from '../takes/MakePlate'
import { CutDoubts } from './CutDoubts'
import { ValueField } from './ValueField'

const cutAt = ({ shape }: Piece, frame: number) => shapeAt(shape, frame) as Cut

const isPlate = ({ picture }: Take): boolean => picture?.kind === 'film' || picture?.kind === 'still'

const takeCalled = (digest: string) => projectOf(store.getState())?.takes.find(t => t.digest === digest)

/** What a piece does that is cut out by a plate. */
export function cutSummary(piece: Piece): string {
  const cut = cutAt(piece, store.getState().view.frame)
  if (cut.plate) return `against ${takeCalled(cut.plate)?.name ?? 'a plate that is gone'}`
  return isTold(cut) ? 'by strokes alone' : '◆ no plate and no strokes yet'
}

/** Its plate and its numbers. */
export function CutFields({ layer, piece }: { layer: Layer; piece: Piece }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const frame = useStore(s => s.view.frame)
  const takes = useStore(s => projectOf(s)?.takes)
  const cut = cutAt(piece, frame)
  const plate = takes?.find(t => t.digest === cut.plate)
  const isPlaced = useStore(s => {
    const layers = shotOf(s)?.layers ?? []
    const farther = layers.slice(layers.findIndex(l => l.id === layer.id) + 1)
    return farther.some(l => asTake(l.source)?.digest === cut.plate)
  })
  const path = { of: 'shape', piece: piece.id } as const
  const set = (changes: Partial<Cut>) => {
    const isKey = store.getState().view.keying && isKeyed(shapeValue(piece.shape))
    send(edit('setValue', layer.id, path, frame, { ...cut, ...changes }, isKey))
  }
  const { marked } = plate ?? { marked: null }
  const isFilm = plate?.picture?.kind === 'film'
  const seconds = { layer, path, unit: 's', digits: 2, min: 0, max: LIMITS.coordinate, step: 0.1, initial: 0 }
  const percent = { layer, path, unit: '%', digits: 0, min: 0, step: 5 }
  return (
    <>
      <label className="col-span-2 flex items-center gap-2 text-xs text-quiet">
        Plate
        <select
          aria-label="Plate"
          value={cut.plate}
          disabled={readOnly}
          onChange={event => set({ plate: event.target.value, from: 0, to: 0.5 })}
          className="min-w-0 flex-1 rounded-full bg-ground px-2.5 py-1 text-ink"
        >
          <option value="">none: strokes alone</option>
          {takes?.filter(isPlate).map(({ digest, name }) => (
            <option key={digest} value={digest}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {plate && !isPlaced && (
        <TextButton
          className="col-span-2"
          disabled={readOnly}
          title="A layer of the plate behind all others, as long as the shot"
          onClick={() => placePlate(plate, cut)}
        >
          Put the plate farthest
        </TextButton>
      )}
      {isFilm && (
        <>
          <ValueField field="from" label="Empty from" {...seconds} />
          <ValueField field="to" label="Empty to" {...seconds} />
          {marked && (
            <TextButton
              className="col-span-2"
              disabled={readOnly}
              onClick={() => set({ from: marked.from, to: marked.to })}
            >
              Empty where it is marked
            </TextButton>
          )}
        </>
      )}
      {cut.plate !== '' && (
        <>
          <ValueField field="sensitive" label="Sensitive" max={100} initial={50} {...percent} />
          <ValueField field="shadow" label="Shadow" max={200} initial={100} {...percent} />
        </>
      )}
      <CutDoubts layer={layer} cut={cut} onMade={made => choose(layer.id, piece.id, made, cut.plate)} />
      <Painting layer={layer} piece={piece} cut={cut} set={set} />
      <Making />
    </>
  )
}

const BRUSHES = [
  { value: 'off', name: 'Nothing' },
  { value: 'keep', name: 'Keep' },
  { value: 'lose', name: 'Lose' },
] as const

/** Makes a plate that of a piece which has another or none, if that is still there and has that one still. */
function choose(layer: string, piece: string, plate: Take, instead: string): void {
  const { frame } = store.getState().view
  const found = shotOf(store.getState())
    ?.layers.find(l => l.id === layer)
    ?.matte.find(p => p.id === piece)
  if (found?.shape.kind !== 'cutout') return
  const cut = cutAt(found, frame)
  if (cut.plate !== instead) return
  const chosen = { ...cut, plate: plate.digest, from: 0, to: 0 }
  store.dispatch(edit('setValue', layer, { of: 'shape', piece }, frame, chosen, false))
}

/** What is painted on the picture to correct it, and what was. */
function Painting({
  layer,
  piece,
  cut,
  set,
}: {
  layer: Layer
  piece: Piece
  cut: Cut
  set: (changes: Partial<Cut>) => void
}) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const frame = useStore(s => s.view.frame)
  const rate = useStore(s => shotOf(s)?.rate)
  const takes = useStore(s => projectOf(s)?.takes)
  const { does, size } = useStore(s => s.brush)
  const strokes = cut.strokes ?? []
  if (!rate) return null
  const moment = paintedMoment(layer, frame, rate, takes ?? [])
  const elsewhere = strokes.filter(s => !isOn(s, moment))
  const here = strokes.length - elsewhere.length
  const own = takes?.find(t => t.digest === asTake(layer.source)?.digest && t.picture?.kind === 'film')
  if (cut.settled)
    return (
      <div className="col-span-2 flex min-h-7 items-center justify-between text-xs text-quiet">
        Settled: nothing is painted on it
        <TextButton disabled={readOnly} onClick={() => set({ settled: false })}>
          Open again
        </TextButton>
      </div>
    )
  const settle = () => {
    send(brushSet({ does: null }))
    set({ settled: true })
  }
  return (
    <div className="col-span-2 flex flex-col gap-1.5 text-xs text-quiet">
      {strokes.length === 0 && cut.plate === '' && (
        <>
          {own && (
            <div className="flex flex-wrap items-center justify-between gap-x-2">
              No empty picture of the set?
              <span className="-mr-3">
                <MakePlate takes={[own]} onMade={take => choose(layer.id, piece.id, take, '')} />
              </span>
            </div>
          )}
          <p>
            Or keep and lose with one stroke each, once more where it goes wrong. Between two painted frames both tell.
          </p>
        </>
      )}
      <div className="flex items-center justify-between gap-2">
        Paint
        <Choice
          label="Paint"
          value={does ?? 'off'}
          options={BRUSHES}
          disabled={readOnly}
          onChange={next => send(brushSet({ does: next === 'off' ? null : next }))}
        />
      </div>
      {does && (
        <NumberField
          label="Brush"
          unit="px"
          value={size}
          min={1}
          max={400}
          initial={10}
          onChange={next => send(brushSet({ size: next }))}
        />
      )}
      {strokes.length > 0 && (
        <div className="flex min-h-7 flex-wrap items-center justify-between gap-x-2">
          <span>
            {strokes.length} {strokes.length === 1 ? 'stroke' : 'strokes'}, {here} on this frame
          </span>
          <span className="-mr-3 ml-auto flex whitespace-nowrap">
            {here > 0 && (
              <TextButton disabled={readOnly} onClick={() => set({ strokes: elsewhere })}>
                Take these away
              </TextButton>
            )}
            <TextButton disabled={readOnly} onClick={settle}>
              Settle
            </TextButton>
          </span>
        </div>
      )}
    </div>
  )
}

/** How many frames are made, and how to stop that or go on. */
function Making() {
  const cutOuts = useCutOuts()
  const [told, setTold] = useState(cutOuts?.progress() ?? null)
  useEffect(() => {
    if (!cutOuts) return
    const look = () => setTold(cutOuts.progress())
    look()
    return cutOuts.subscribe(look)
  }, [cutOuts])
  if (!told) return null
  const { done, of, making } = told
  return (
    <div className="col-span-2 flex min-h-7 items-center justify-between text-xs text-quiet">
      <span role="status">{done < of ? `${done} of ${of} frames are ready` : `All ${of} frames are ready`}</span>
      {done < of && (
        <TextButton onClick={() => cutOuts?.setMaking(!making)}>{making ? 'Stop' : 'Make the rest'}</TextButton>
      )}
    </div>
  )
}
