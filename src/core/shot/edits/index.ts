// Everything that can be done to a shot, each as a small change to a draft. A layer or piece that is not there, or is
// locked, is left alone.
export * from './graphics'
export * from './group'
export * from './layers'
export * from './looks'
export * from './outline'
export * from './pieces'
export * from './place'
export * from './shot'
export * from './sound'
export * from './tempo'
export * from './time'
export * from './values'
