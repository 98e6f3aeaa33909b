export * from './jobs'
export { closed, type EditName, edit, editIn, opened, takesAdded } from './project'
export * from './store'
export * from './view'
