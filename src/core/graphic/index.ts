export { type Border, castSchema, type Shadow } from './cast'
export { type Fill, fillSchema, filled, type Gradient, type Stop, STOPS } from './fill'
export {
  ALIGNS,
  type Align,
  type Layout,
  type Letters,
  lettersFrame,
  lettersRings,
  type SetGlyph,
  type SetLine,
  type Wording,
} from './letters'
