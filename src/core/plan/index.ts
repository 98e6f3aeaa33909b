export * from './plan'
export * from './types'
export * from './view'
