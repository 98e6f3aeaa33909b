// The kernels that work on whole planes, and what each is given by name.

/** What they take, in their order, by the names that it has where they are written. */
export const NAMED_KERNELS = {
  stripCoverage: ['points', 'count', 'width', 'height', 'grow', 'inside', 'outside', 'out', 'field'],
  outlineDistance: [
    'points',
    'count',
    'width',
    'height',
    'grow',
    'inside',
    'outside',
    'softs',
    'share',
    'out',
    'near',
    'square',
    'stride',
    'rows',
    'bends',
  ],
  lightCells: ['y', 'u', 'v', 'n', 'matrix', 'outY', 'outU', 'outV'],
  lightLuma: ['luma', 'step', 'u', 'v', 'cells', 'width', 'height', 'matrix', 'out'],
  veilCells: ['y', 'u', 'v', 'n', 'tables', 'outY', 'outU', 'outV'],
  veilLuma: ['luma', 'step', 'u', 'v', 'cells', 'width', 'height', 'tables', 'out'],
  shrinkPlane: [
    'src',
    'stride',
    'width',
    'height',
    'dst',
    'toWidth',
    'toHeight',
    'scale',
    'lift',
    'row',
    'firsts',
    'weights',
    'taps',
  ],
  shiftPlane: ['src', 'width', 'height', 'x', 'y', 'dst', 'row'],
  turnPlane: ['src', 'width', 'height', 'x0', 'y0', 'cos', 'sin', 'dst'],
  lightPairs: ['planes', 'width', 'height', 'step', 'least', 'most', 'room', 'out', 'counts'],
  sharedRatio: ['from', 'to', 'n', 'reach', 'bins', 'histogram', 'room'],
  pairLights: ['from', 'to', 'n', 'out'],
  lightSums: ['lights', 'n', 'gain', 'offset', 'reach', 'sums'],
  smoothPlane: ['src', 'width', 'height', 'row', 'out'],
  steepestPlaces: ['plane', 'width', 'height', 'border', 'tile', 'least', 'out'],
  smoothAnchors: ['plane', 'width', 'xs', 'ys', 'n', 'share', 'out'],
  anchorsOff: ['plane', 'width', 'height', 'xs', 'ys', 'n', 'shown', 'x0', 'y0', 'cos', 'sin', 'beyond', 'out'],
  anchorSums: ['xs', 'ys', 'gxs', 'gys', 'off', 'n', 'reach', 'cx', 'cy', 'per', 'sums'],
  countNoise: ['planes', 'width', 'height', 'step', 'largest', 'out'],
  takePatch: ['plane', 'width', 'height', 'x', 'y', 'slight', 'patch'],
  settlePatch: ['plane', 'width', 'height', 'patch', 'rounds', 'small', 'place'],
  boxMean: ['plane', 'step', 'width', 'height', 'r', 'out', 'room', 'sums'],
  copyRows: ['src', 'fromStep', 'dst', 'toStep', 'n', 'rows'],
  differSquares: ['planes', 'width', 'height', 'block', 'numbers', 'out'],
  bondPlanes: ['fy', 'fu', 'fv', 'py', 'pu', 'pv', 'width', 'height', 'scale', 'table', 'across', 'down'],
  weighColours: ['y', 'u', 'v', 'n', 'own', 'other', 'most', 'odds'],
  countColours: ['y', 'u', 'v', 'told', 'n', 'sure', 'counts'],
  believe: ['odds', 'across', 'down', 'width', 'height', 'sweeps', 'left', 'right', 'above', 'below', 'own', 'out'],
  softenCells: [
    'tables',
    'numbers',
    'width',
    'height',
    'fullWidth',
    'fullHeight',
    'fars',
    'fromX',
    'fromY',
    'toX',
    'toY',
    'strands',
  ],
  strandSquares: [
    'tables',
    'numbers',
    'width',
    'height',
    'fullWidth',
    'fullHeight',
    'fromX',
    'fromY',
    'toX',
    'toY',
    'block',
    'wanted',
    'within',
    'out',
  ],
  keepGaps: ['tables', 'strands', 'width', 'height', 'fullWidth', 'fullHeight', 'before', 'alpha'],
  farthestColours: ['tables', 'width', 'height', 'fullWidth', 'fullHeight', 'block', 'wanted', 'out'],
  settleAlpha: ['raw', 'doubts', 'luma', 'width', 'height', 'fromX', 'fromY', 'toX', 'toY', 'numbers', 'out'],
  besideCells: ['share', 'left', 'step', 'width', 'height', 'weights', 'sums'],
  packColours: ['alpha', 'colours', 'luma', 'u', 'v', 'width', 'height', 'lift', 'stale', 'out'],
  spreadColours: ['alpha', 'packed', 'most', 'width', 'height', 'rings', 'out'],
  dropSpecks: ['alpha', 'step', 'before', 'width', 'height', 'covered', 'bare', 'needed', 'faint'],
  dropFaint: ['alpha', 'step', 'marks', 'width', 'height', 'firm', 'faint', 'rounds'],
  squareShifts: [
    'pictures',
    'width',
    'height',
    'smallWidth',
    'smallHeight',
    'wanted',
    'block',
    'around',
    'smaller',
    'far',
    'near',
    'lazy',
    'calm',
    'out',
  ],
  changeSums: ['frame', 'plate', 'is', 'width', 'height', 'least', 'sums'],
  steadyAlpha: [
    'alpha',
    'before',
    'width',
    'height',
    'planes',
    'grain',
    'perU',
    'perV',
    'near',
    'keep',
    'moves',
    'rest',
    'x0',
    'y0',
    'x1',
    'y1',
  ],
  shadeCells: ['near', 'left', 'width', 'height', 'table', 'out', 'seen', 'outs', 'seens'],
} as const

type Named = typeof NAMED_KERNELS

/** Those that give a number back. */
type Telling = 'takePatch' | 'countColours' | 'packColours' | 'sharedRatio' | 'steepestPlaces'

/** A kernel that is called with names: a dozen numbers in a row cannot be told from one another. */
export type NamedKernels = {
  [K in keyof Named]: (given: Readonly<Record<Named[K][number], number>>) => K extends Telling ? number : void
}

type Exported = Readonly<Record<string, (...given: number[]) => number>>

/** Kernels as they are exported, those of whole planes called with names. Rows stay as they are: they are made too often for it. */
export function namedKernels(exported: Exported): NamedKernels {
  const named = Object.entries(NAMED_KERNELS).map(([kernel, names]) => {
    const call = exported[kernel]!
    return [kernel, (given: Record<string, number>) => call(...names.map(name => given[name]!))]
  })
  return Object.fromEntries(named)
}
