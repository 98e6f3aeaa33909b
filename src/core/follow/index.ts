export { moveOf } from './move'
export { type Followed, followPoint, levelsOf, type PointFollower } from './point'
export type { Grey } from './pyramid'
export { spotsIn } from './spots'
