#!/usr/bin/env node
// The terminal program, built first where that has not been done or its source has changed.
import { prepare } from '../scripts/prepare.mjs'

await prepare()
await import('../build/node/ghost.js')
