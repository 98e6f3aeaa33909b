import { useSortable } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { Eye, EyeOff, Trash2 } from 'lucide-react'
import { goWith, leadersOf } from '../../app/commands/ride'
import { edit, editIn, pieceChosen, projectOf, shotOf, store, useSend, useStore } from '../../app/store'
import { isKeyed, sample } from '../../core/keys'
import { SHAPE_KINDS, SHAPES } from '../../core/shape'
import { type Blur, edits, type Join, type Layer, LIMITS, type Piece, type Shape, type Shot } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Choice } from '../common/Choice'
import { KeyControl } from '../common/KeyControl'
import { Menu, MenuItem } from '../common/Menu'
import { NumberField } from '../common/NumberField'
import { Toggle } from '../common/Toggle'
import { SHAPE_VIEWS } from '../stage/shape-views'
import { CommandButton } from './CommandButton'
import { ValueField } from './ValueField'

const SHAPE_CHOICES = SHAPE_KINDS.map(kind => {
  const { icon: Icon } = SHAPE_VIEWS[kind]
  return { value: kind, name: SHAPES[kind].name, icon: <Icon size={15} /> }
})

const JOINS = [
  { value: 'add', name: 'Adds to it' },
  { value: 'subtract', name: 'Takes away' },
  { value: 'intersect', name: 'Keeps only' },
] as const

const JOIN_WORDS: Record<Join, string> = { add: 'adds', subtract: 'takes away', intersect: 'keeps only' }

/** What a piece does, in a few words. */
function summary(piece: Piece, shot: Shot | null): string {
  const own = SHAPE_VIEWS[piece.shape.kind].summary?.(piece, shot)
  return own ?? `${JOIN_WORDS[piece.join]}${piece.inverted ? ', inverted' : ''}`
}

const MOTION = [
  { field: 'x', label: 'Across', unit: 'px', initial: 0 },
  { field: 'y', label: 'Down', unit: 'px', initial: 0 },
  { field: 'angle', label: 'Turn', unit: '°', initial: 0, step: 0.5 },
  {
    field: 'scale',
    label: 'Scale',
    factor: 100,
    unit: '%',
    min: 100 * LIMITS.scale.least,
    max: 100 * LIMITS.scale.most,
    initial: 100,
  },
] as const

/** Which other piece of the layer this one goes with, where there is one that moves. */
function GoWith({ layer, piece }: { layer: Layer; piece: Piece }) {
  const readOnly = useStore(s => s.view.readOnly)
  const moving = leadersOf(layer, piece)
  if (moving.length === 0) return null
  const trigger = (
    <button type="button" disabled={readOnly} className="rounded-full bg-raised px-2.5 py-0.5 text-xs text-ink">
      Go with…
    </button>
  )
  return (
    <Menu trigger={trigger}>
      {moving.map(leader => (
        <MenuItem key={leader.id} onSelect={() => goWith(leader)}>
          {leader.name}
        </MenuItem>
      ))}
    </Menu>
  )
}

/** Of a shape that is changed on the picture only: its keys, and how it moves as a whole. */
function WholeFields({ layer, piece }: { layer: Layer; piece: Piece }) {
  const { name, word } = SHAPES[piece.shape.kind]
  return (
    <>
      {MOTION.map(field => (
        <ValueField key={field.field} layer={layer} path={{ of: 'motion', piece: piece.id }} digits={1} {...field} />
      ))}
      <div className="col-span-2 flex items-center justify-between text-xs text-quiet">
        {name}, its points
        <KeyControl layer={layer} path={{ of: 'shape', piece: piece.id }} name={word} />
      </div>
    </>
  )
}

function ShapeFields({ layer, piece }: { layer: Layer; piece: Piece }) {
  const path = { of: 'shape', piece: piece.id } as const
  const { fields, Fields } = SHAPE_VIEWS[piece.shape.kind]
  if (Fields) return <Fields layer={layer} piece={piece} />
  if (fields.length === 0) return <WholeFields layer={layer} piece={piece} />
  return fields.map(field => <ValueField key={field.field} layer={layer} path={path} digits={1} {...field} />)
}

/** One piece of a matte: a line when it is not chosen, all its settings when it is. */
export function PieceCard({ layer, piece }: { layer: Layer; piece: Piece }) {
  const send = useSend()
  const chosen = useStore(s => s.view.piece === piece.id)
  const readOnly = useStore(s => s.view.readOnly)
  const words = useStore(s => summary(piece, shotOf(s)))
  const { icon: Icon, More } = SHAPE_VIEWS[piece.shape.kind]
  const { listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: piece.id, disabled: readOnly })
  const change = (changes: edits.PieceSwitches) => send(edit('changePiece', layer.id, piece.id, changes))
  const blur = (changes: Partial<Blur>, gesture: string) =>
    send(editIn(gesture, 'changePiece', layer.id, piece.id, { blur: { ...piece.blur, ...changes } }))
  const isOn = useStore(s => sample(piece.on, s.view.frame))
  const switchOn = () => {
    const { frame, keying } = store.getState().view
    send(edit('setValue', layer.id, { of: 'on', piece: piece.id }, frame, !isOn, keying || isKeyed(piece.on)))
  }
  const swap = (kind: Shape['kind']) => {
    const [project, shot] = [projectOf(store.getState()), shotOf(store.getState())]
    if (!project || !shot) return
    const { takes } = project
    send(edit('swapShape', layer.id, piece.id, kind, edits.layerSize(layer, shot, takes), takes))
  }
  const path = (of: 'inside' | 'outside' | 'grow' | 'strength') => ({ of, piece: piece.id }) as const
  const length = { layer, unit: 'px', digits: 1, max: 4000, initial: 0 }
  return (
    <li
      ref={setNodeRef}
      className="relative"
      style={{ transform: CSS.Translate.toString(transform), transition, zIndex: isDragging ? 10 : undefined }}
    >
      <div
        {...listeners}
        className={`flex touch-none items-center rounded-lg ${chosen ? 'bg-ghost/15 text-ghost' : 'text-quiet'} ${isDragging ? 'bg-raised shadow-xl shadow-black' : ''}`}
      >
        <button
          type="button"
          aria-expanded={chosen}
          onClick={() => send(pieceChosen({ layer: layer.id, piece: chosen ? null : piece.id }))}
          className="flex min-w-0 flex-1 items-center gap-2 px-2 py-1 text-left"
        >
          <Icon size={15} className="shrink-0" />
          <span className={`max-w-3/4 shrink-0 truncate font-bold ${chosen ? '' : 'text-ink'}`}>{piece.name}</span>
          <span className="truncate text-quiet">{words}</span>
        </button>
        <IconButton
          icon={isOn ? Eye : EyeOff}
          size="small"
          label={isOn ? `Leave ${piece.name} out` : `Use ${piece.name}`}
          disabled={readOnly}
          onClick={switchOn}
        />
        <IconButton
          icon={Trash2}
          size="small"
          label={`Delete ${piece.name}`}
          disabled={readOnly}
          onClick={() => send(edit('removePiece', layer.id, piece.id))}
        />
      </div>
      {chosen && (
        <div className="flex flex-col gap-2 px-2 py-2">
          <Choice label="Shape" value={piece.shape.kind} options={SHAPE_CHOICES} onChange={swap} disabled={readOnly} />
          <Choice
            label="How it joins"
            value={piece.join}
            options={JOINS}
            onChange={join => change({ join })}
            disabled={readOnly}
          />
          <div className="grid grid-cols-2 gap-x-2.5 gap-y-1.5">
            <ValueField {...length} path={path('inside')} label="Feather in" min={0} />
            <ValueField {...length} path={path('outside')} label="Feather out" min={0} />
            <ValueField {...length} path={path('grow')} label="Grow" min={-4000} />
            <ValueField
              layer={layer}
              path={path('strength')}
              label="Strength"
              factor={100}
              unit="%"
              min={0}
              max={100}
              initial={100}
            />
            <ShapeFields layer={layer} piece={piece} />
            <Toggle
              label="Inverted"
              on={piece.inverted}
              disabled={readOnly}
              onChange={inverted => change({ inverted })}
            />
            {SHAPES[piece.shape.kind].travel && (
              <NumberField
                label="Shutter"
                unit="°"
                value={piece.blur.shutter}
                min={0}
                max={LIMITS.shutter}
                initial={0}
                step={15}
                disabled={readOnly}
                onChange={(shutter, gesture) => blur({ shutter }, gesture)}
              />
            )}
            {SHAPES[piece.shape.kind].travel && piece.blur.shutter > 0 && (
              <NumberField
                label="Phase"
                unit="°"
                value={piece.blur.phase}
                min={LIMITS.phase.least}
                max={LIMITS.phase.most}
                initial={0}
                step={15}
                disabled={readOnly}
                onChange={(phase, gesture) => blur({ phase }, gesture)}
              />
            )}
            {More && <More piece={piece} />}
          </div>
          <div className="flex items-center gap-1 text-xs text-quiet">
            <span className="flex-1">Used</span>
            <CommandButton id="piece-from">from here</CommandButton>
            <CommandButton id="piece-until">until here</CommandButton>
            <KeyControl layer={layer} path={{ of: 'on', piece: piece.id }} name="used" />
          </div>
          <div className="flex items-center justify-between text-xs text-quiet">
            Pinned to
            <Choice
              label="Pinned to"
              value={piece.pinnedTo}
              options={[
                { value: 'layer', name: 'its layer' },
                { value: 'shot', name: 'the shot' },
              ]}
              onChange={pinnedTo => change({ pinnedTo })}
              disabled={readOnly}
            />
          </div>
          <div className="flex flex-wrap justify-end gap-1">
            <CommandButton id="carry">Carry along</CommandButton>
            <CommandButton id="carry-flat">… in perspective</CommandButton>
            <CommandButton id="ride">Ride on a point</CommandButton>
            <GoWith layer={layer} piece={piece} />
            <CommandButton id="piece-keep">Keep for others</CommandButton>
          </div>
        </div>
      )}
    </li>
  )
}
