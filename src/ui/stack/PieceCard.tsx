import { Circle, Eye, EyeOff, RectangleHorizontal, SeparatorVertical, Trash2 } from 'lucide-react'
import { edit, pieceChosen, projectOf, useSend, useStore } from '../../app/store'
import { edits, type Join, type Layer, type Piece, type Shape } from '../../core/shot'
import { IconButton } from '../common/Button'
import { Choice } from '../common/Choice'
import { Toggle } from '../common/Toggle'
import { ValueField } from './ValueField'

const ICONS = { edge: SeparatorVertical, box: RectangleHorizontal, oval: Circle } as const

const SHAPES = [
  { value: 'edge', name: 'Edge', icon: <SeparatorVertical size={15} /> },
  { value: 'box', name: 'Box', icon: <RectangleHorizontal size={15} /> },
  { value: 'oval', name: 'Oval', icon: <Circle size={15} /> },
] as const

const JOINS = [
  { value: 'add', name: 'Adds to it' },
  { value: 'subtract', name: 'Takes away' },
  { value: 'intersect', name: 'Keeps only' },
] as const

const JOIN_WORDS: Record<Join, string> = { add: 'adds', subtract: 'takes away', intersect: 'keeps only' }

/** What a piece does, in a few words. */
function summary(piece: Piece): string {
  if (piece.shape.kind === 'edge' && piece.join === 'add') return piece.inverted ? 'keeps its left' : 'keeps its right'
  return `${JOIN_WORDS[piece.join]}${piece.inverted ? ', inverted' : ''}`
}

function ShapeFields({ layer, piece }: { layer: Layer; piece: Piece }) {
  const position = { layer, digits: 1 }
  if (piece.shape.kind === 'edge') {
    const path = { of: 'line', piece: piece.id } as const
    return (
      <>
        <ValueField {...position} path={path} field="x" label="Across" initial={0} />
        <ValueField {...position} path={path} field="y" label="Down" initial={0} />
        <ValueField layer={layer} path={path} field="angle" label="Turn" unit="°" digits={1} initial={0} step={0.5} />
      </>
    )
  }
  const path = { of: 'frame', piece: piece.id } as const
  return (
    <>
      <ValueField {...position} path={path} field="x" label="Across" initial={0} />
      <ValueField {...position} path={path} field="y" label="Down" initial={0} />
      <ValueField {...position} path={path} field="width" label="Width" min={0} initial={100} />
      <ValueField {...position} path={path} field="height" label="Height" min={0} initial={100} />
      <ValueField layer={layer} path={path} field="angle" label="Turn" unit="°" digits={1} initial={0} step={0.5} />
    </>
  )
}

/** One piece of a matte: a line when it is not chosen, all its settings when it is. */
export function PieceCard({ layer, piece }: { layer: Layer; piece: Piece }) {
  const send = useSend()
  const chosen = useStore(s => s.view.piece === piece.id)
  const readOnly = useStore(s => s.view.readOnly)
  const project = useStore(projectOf)
  const Icon = ICONS[piece.shape.kind]
  const change = (changes: edits.PieceSwitches) => send(edit('changePiece', layer.id, piece.id, changes))
  const swap = (kind: Shape['kind']) => {
    if (project) send(edit('swapShape', layer.id, piece.id, kind, edits.layerSize(layer, project.shot, project.takes)))
  }
  const path = (of: 'inside' | 'outside' | 'grow' | 'strength') => ({ of, piece: piece.id }) as const
  const length = { layer, unit: 'px', digits: 1, max: 4000, initial: 0 }
  return (
    <li>
      <div className={`flex items-center rounded-lg ${chosen ? 'bg-ghost/15 text-ghost' : 'text-quiet'}`}>
        <button
          type="button"
          aria-expanded={chosen}
          onClick={() => send(pieceChosen({ layer: layer.id, piece: chosen ? null : piece.id }))}
          className="flex min-w-0 flex-1 items-center gap-2 px-2 py-1 text-left"
        >
          <Icon size={15} className="shrink-0" />
          <span className={`font-bold ${chosen ? '' : 'text-ink'}`}>{piece.name}</span>
          <span className="truncate text-quiet">{summary(piece)}</span>
        </button>
        <IconButton
          icon={piece.on ? Eye : EyeOff}
          size="small"
          label={piece.on ? `Leave ${piece.name} out` : `Use ${piece.name}`}
          disabled={readOnly}
          onClick={() => change({ on: !piece.on })}
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
          <div className="flex items-center justify-between">
            <Choice label="Shape" value={piece.shape.kind} options={SHAPES} onChange={swap} disabled={readOnly} />
            <span className="w-24">
              <Toggle
                label="Inverted"
                on={piece.inverted}
                disabled={readOnly}
                onChange={inverted => change({ inverted })}
              />
            </span>
          </div>
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
        </div>
      )}
    </li>
  )
}
