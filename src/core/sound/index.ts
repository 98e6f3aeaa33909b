export { toStereo } from './channels'
export { mixdown, sounds } from './mixdown'
export { PEAKS_A_SECOND, peakBetween, peaksOf } from './peaks'
export { resampler } from './resample'
