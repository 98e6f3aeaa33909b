export { mediaEntry, readProjectFile, writeProjectFile } from './project-file'
export { outlinesIn, pathOf, svgOf } from './svg-path'
