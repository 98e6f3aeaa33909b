export * from './jobs'
export { closed, edit, editIn, opened, takeChanged, takeRemoved, takesAdded } from './project'
export * from './store'
export * from './view'
