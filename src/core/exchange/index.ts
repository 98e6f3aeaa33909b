export { mediaEntry, readProjectFile, writeProjectFile } from './project-file'
export { mayBePath, outlinesIn, pathOf, svgOf } from './svg-path'
