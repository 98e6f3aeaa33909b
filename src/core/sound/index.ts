export * from './channels'
export * from './mixdown'
export * from './resample'
