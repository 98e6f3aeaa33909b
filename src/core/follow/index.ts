export { moveOf } from './move'
export { type Followed, followPoint, type PointFollower } from './point'
export { type Pyramid, pyramid, refill } from './pyramid'
export { spotsIn } from './spots'
