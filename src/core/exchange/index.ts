export * from './project-file'
