export { type Ease, eased, easeName, FIRST_CURVE, type Handles, SWING } from './ease'
export { mapKeys, mirrorKeys, moveKey, removeKey, setAt, setEase, setKey, shiftKeys, spreadKeys } from './edit'
export type { Mixer } from './mix'
export { isKeyed, type Key, keysOf, sample, type Value } from './value'
