export { openMatte } from './coverage'
