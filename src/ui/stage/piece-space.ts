// From a piece's own px to the screen's.
import type { Camera } from '../../app/store'
import { type Affine, after, scaling } from '../../core/affine'
import { sample } from '../../core/keys'
import { type Layer, motionMap, type Piece, placeMap } from '../../core/shot'

/** How px of the shot lie on the screen. */
export const onScreen = ({ zoom, x, y }: Camera): Affine => scaling(zoom, x, y)

/** As `pieceMap`, before the piece moves as a whole. */
export const unmovedMap = (layer: Layer, piece: Piece, frame: number, camera: Camera): Affine =>
  piece.pinnedTo === 'shot' ? onScreen(camera) : after(onScreen(camera), placeMap(layer, sample(layer.place, frame)))

/** How what a piece is told in lies on the screen: its layer's px, turned and mirrored as that is, or the shot's. */
export const pieceMap = (layer: Layer, piece: Piece, frame: number, camera: Camera): Affine =>
  after(unmovedMap(layer, piece, frame, camera), motionMap(piece.pivot, sample(piece.motion, frame)))

/** An angle in degrees brought next to another one, so that a turn never jumps by a whole circle. */
export const nearAngle = (angle: number, to: number): number => angle - 360 * Math.round((angle - to) / 360)

export const round = (v: number): number => Math.round(v * 100) / 100
