export * from './jobs'
export { closed, edit, editIn, opened, takesAdded } from './project'
export * from './store'
export * from './view'
