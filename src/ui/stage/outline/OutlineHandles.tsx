import { shotOf, useStore } from '../../../app/store'
import { keysOf } from '../../../core/keys'
import { corner, type OutlinePoint } from '../../../core/outline'
import { shapeValue } from '../../../core/shape'
import type { HandlesProps } from '../shape-views'
import { BorderLines } from './BorderLines'
import { ChosenFrame } from './ChosenFrame'
import { useLineColour } from './line-colour'
import { OutlineLine } from './OutlineLine'
import { OutlinePoints } from './OutlinePoints'
import { useDrawing } from './use-drawing'
import { useHeldKey } from './use-held-key'
import { useOutline } from './use-outline'
import { useOutlineHand } from './use-outline-hand'
import { WholeFrame } from './WholeFrame'

/** The outlines of the keys before and after a frame. */
function neighbours(piece: HandlesProps['piece'], frame: number): OutlinePoint[][] {
  const keys = keysOf(shapeValue(piece.shape)) as readonly { frame: number; value: OutlinePoint[] }[]
  const before = keys.filter(k => k.frame < frame).at(-1)
  const after = keys.find(k => k.frame > frame)
  return [before, after].flatMap(k => (k ? [k.value] : []))
}

/** A free outline on the picture: it is drawn here, and here its points are moved, added and chosen. */
export function OutlineHandles(props: HandlesProps) {
  const { layer, piece, frame, camera, canvas, onActive } = props
  const shot = useStore(s => shotOf(s)?.size)
  const asked = useStore(s => s.view.lineColour)
  const chosen = useStore(s => s.view.points)
  const isDrawing = useStore(s => s.view.drawing)
  const adding = useHeldKey('a')
  const hidden = useHeldKey('x')
  const outline = useOutline(props)
  const isSoft = useHeldKey('d') && !outline.isOpen
  const hand = useOutlineHand(outline, chosen, adding ? 'adding' : isSoft ? 'softening' : 'moving', onActive)
  const drawing = useDrawing(outline, layer, piece, isDrawing)
  const { points } = outline
  const { handlers } = isDrawing ? drawing : hand
  const grip = isDrawing ? null : hand.grip
  const cursor = isDrawing || adding ? 'crosshair' : !grip ? 'default' : grip.kind === 'line' ? 'move' : 'pointer'
  const last = points.at(-1)
  const colour = useLineColour(canvas, points, camera, shot, asked)
  return (
    <>
      <rect
        width="100%"
        height="100%"
        fill="transparent"
        className="pointer-events-auto touch-none"
        data-testid="outline-ground"
        style={{ cursor }}
        {...handlers}
      />
      <g data-piece={piece.name} style={{ color: colour, visibility: hidden ? 'hidden' : 'visible' }}>
        {neighbours(piece, frame).map((ghost, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the one before, the one after
          <OutlineLine key={i} points={outline.onScreen(ghost)} ghost closed={!outline.isOpen} />
        ))}
        <OutlineLine points={points} closed={!outline.isOpen && (!isDrawing || drawing.closes)} />
        {outline.isOpen && <BorderLines points={points} of="width" />}
        {!outline.isOpen && (hand.softening || points.some(p => p.soft)) && <BorderLines points={points} of="soft" />}
        {isDrawing && last && drawing.over && !drawing.closes && (
          <g strokeDasharray="5 4">
            <OutlineLine points={[last, corner(drawing.over)]} closed={false} />
          </g>
        )}
        <OutlinePoints
          points={points}
          chosen={isDrawing && points.length > 0 ? [points.length - 1] : chosen}
          grip={isDrawing ? (drawing.closes ? { kind: 'point', index: 0 } : null) : grip}
          softening={isDrawing ? null : hand.softening}
        />
        {!isDrawing && !adding && !isSoft && chosen.length > 1 && (
          <ChosenFrame outline={outline} chosen={chosen} onActive={onActive} />
        )}
        {!isDrawing && !adding && !isSoft && chosen.length === 0 && <WholeFrame {...props} />}
        {hand.box && (
          <rect
            x={Math.min(hand.box.from.x, hand.box.to.x)}
            y={Math.min(hand.box.from.y, hand.box.to.y)}
            width={Math.abs(hand.box.to.x - hand.box.from.x)}
            height={Math.abs(hand.box.to.y - hand.box.from.y)}
            fill="currentColor"
            fillOpacity="0.12"
            stroke="currentColor"
            strokeDasharray="3 3"
          />
        )}
      </g>
    </>
  )
}
