export { matteRow } from './coverage'
