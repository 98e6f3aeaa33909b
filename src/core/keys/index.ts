export * from './edit'
export * from './value'
