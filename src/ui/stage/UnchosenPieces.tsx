// The lines of a layer's pieces while none of them is chosen: there when the hand is over the picture, and chosen by a press.
import { type Camera, pieceChosen, useSend } from '../../app/store'
import { pathOf } from '../../core/exchange'
import { sample } from '../../core/keys'
import { carryOutlinePoint, type OutlinePoint } from '../../core/outline'
import { SHAPES, shapeAt } from '../../core/shape'
import type { Layer, Piece, Size } from '../../core/shot'
import { useHeldKey } from './outline/use-held-key'
import { pieceMap } from './piece-space'

/** px of the screen beside a line within which a press still means it. */
const NEAR = 7

interface Props {
  layer: Layer
  frame: number
  camera: Camera
  /** Of the picture that a piece lies in. */
  sizeOf: (piece: Piece) => Size
}

/** A piece's line on the screen; null where it has none. */
function lineOf({ layer, frame, camera, sizeOf }: Props, piece: Piece): string | null {
  const kind = SHAPES[piece.shape.kind]
  const value = shapeAt(piece.shape, frame)
  const points = kind.isDrawn ? (value as OutlinePoint[]) : kind.outlined?.(value as never, sizeOf(piece))
  if (!points || points.length < 2) return null
  const map = pieceMap(layer, piece, frame, camera)
  return pathOf(
    points.map(p => carryOutlinePoint(map, p)),
    kind.isOpen === true,
  )
}

export function UnchosenPieces(props: Props) {
  const send = useSend()
  const isHidden = useHeldKey('x')
  const { layer, frame } = props
  if (isHidden) return null
  return (
    <svg
      className="pointer-events-none absolute inset-0 size-full opacity-0 transition-opacity group-hover/well:opacity-100"
      aria-hidden="true"
    >
      {layer.matte.map(piece => {
        const d = sample(piece.on, frame) ? lineOf(props, piece) : null
        if (d === null) return null
        return (
          <g
            key={piece.id}
            data-unchosen={piece.name}
            fill="none"
            className="group cursor-pointer"
            onPointerDown={event => {
              event.stopPropagation()
              send(pieceChosen({ layer: layer.id, piece: piece.id }))
            }}
          >
            <path d={d} stroke="#000" strokeOpacity={0.4} strokeWidth={3} />
            <path
              d={d}
              stroke="#f4efe6"
              strokeWidth={1}
              strokeOpacity={0.7}
              className="group-hover:stroke-ghost group-hover:stroke-2"
            />
            <path d={d} stroke="transparent" strokeWidth={2 * NEAR} pointerEvents="stroke" />
          </g>
        )
      })}
    </svg>
  )
}
