export * from './channels'
export * from './mixdown'
export * from './peaks'
export * from './resample'
