export { mediaEntry, readProjectFile, writeProjectFile } from './project-file'
