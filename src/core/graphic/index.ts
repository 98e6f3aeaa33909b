export { type Border, castSchema, type Shadow } from './cast'
export { type Fill, filled, fillSchema, type Gradient, STOPS, type Stop } from './fill'
export {
  ALIGNS,
  type Align,
  type Layout,
  type Letters,
  lettersBounds,
  lettersFrame,
  lettersRings,
  type SetGlyph,
  type SetLine,
  type Wording,
} from './letters'
