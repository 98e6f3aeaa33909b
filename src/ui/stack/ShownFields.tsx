// A piece that is another layer: which one, and what is read of it.
import { edit, shotOf, store, useSend, useStore } from '../../app/store'
import { isKeyed } from '../../core/keys'
import { READINGS, type Reading, type Shown, shapeAt, shapeValue } from '../../core/shape'
import { type Layer, layersFor, type Piece, type Shot } from '../../core/shot'
import { Choice } from '../common/Choice'
import { KeyControl } from '../common/KeyControl'

const WORDS: Record<Reading, string> = { alpha: 'What it covers', brightness: 'How bright it is' }
const CHOICES = READINGS.map(value => ({ value, name: WORDS[value] }))

const shownAt = ({ shape }: Piece, frame: number) => shapeAt(shape, frame) as Shown

/** What a piece does that is another layer. */
export function shownSummary(piece: Piece, shot: Shot | null): string {
  const { frame } = store.getState().view
  const { layer, of } = shownAt(piece, frame)
  const found = shot?.layers.find(l => l.id === layer)
  if (!found) return layer ? '◆ its layer is gone' : 'no layer yet'
  return `${of === 'alpha' ? 'as covered by' : 'as bright as'} ${found.name}`
}

/** Which layer a piece is, and what of it. */
export function ShownFields({ layer, piece }: { layer: Layer; piece: Piece }) {
  const send = useSend()
  const readOnly = useStore(s => s.view.readOnly)
  const frame = useStore(s => s.view.frame)
  const shot = useStore(shotOf)
  const shown = shownAt(piece, frame)
  const path = { of: 'shape', piece: piece.id } as const
  const set = (changes: Partial<Shown>) => {
    const { keying } = store.getState().view
    const isKey = keying && isKeyed(shapeValue(piece.shape))
    send(edit('setValue', layer.id, path, frame, { ...shown, ...changes }, isKey))
  }
  const others = shot ? layersFor(shot, layer.id) : []
  const isGone = shown.layer !== '' && !shot?.layers.some(l => l.id === shown.layer)
  return (
    <div className="col-span-2 flex flex-col gap-1.5">
      <label className="flex items-center gap-2 text-xs text-quiet">
        Layer
        <select
          value={shown.layer}
          disabled={readOnly}
          onChange={event => set({ layer: event.target.value })}
          className="min-w-0 flex-1 rounded-full bg-ground px-2.5 py-1 text-ink"
        >
          {shown.layer === '' && <option value="">choose one</option>}
          {isGone && <option value={shown.layer}>◆ one that is gone</option>}
          {others.map(({ id, name, on }) => (
            <option key={id} value={id}>
              {name}
              {on ? '' : ', hidden'}
            </option>
          ))}
        </select>
        <KeyControl layer={layer} path={path} name="layer" />
      </label>
      <Choice
        label="What is read of it"
        value={shown.of}
        options={CHOICES}
        onChange={of => set({ of })}
        disabled={readOnly}
      />
    </div>
  )
}
