export { type Followed, followPoint } from './point'
export type { Grey } from './pyramid'
