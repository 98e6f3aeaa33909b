// What is too small in a matte to be anything.
import type { Kernels } from '../render'
import type { Size } from '../shot/types'
import { type Part, whole } from './plane'

/** Codes from which a px counts as covered, and below which as bare; neighbours of its kind that it needs, or it is a speck. */
const COVERED = 64
const BARE = 192
const NEEDED = 2
/** Clear px beside what hardly counts as covered, of eight, for it to be none. */
const FAINT = 5
/** By how much less than most beside it a px is covered for it to be a pit. */
const PIT = 40

/** Codes from which a px is part of something, and px that something has at least, or it is a speck. */
const PART = 100
const SMALLEST = 48
/** Codes from which a px leads on, and rounds in which what it leads to is looked for. */
const LEADS = 6
const ROUNDS = 2

/** Where a part of a plane of bytes begins whose rows are `across` px. */
const cornerOf = (alpha: number, across: number, { x, y }: Part): number => alpha + y * across + x

/** Takes away small things that touch nothing larger: the codec leaves such beside what is bright. `alpha`: where its px lie. */
export function dropIslands(k: Kernels, { width, height }: Size, alpha: number): void {
  k.scope(() => k.dropIslands(alpha, width, height, PART, SMALLEST, k.alloc(SMALLEST * 4)))
}

/** Takes away what is faint and leads to nothing firm: in somebody's own bright colours it would be dots beside them. Of a part all else is left alone. Throws OutOfMemory. */
export function dropFaint(k: Kernels, full: Size, alpha: number, part = whole(full)): void {
  const { width, height } = part
  const from = cornerOf(alpha, full.width, part)
  k.scope(() =>
    k.dropFaint({
      alpha: from,
      step: full.width,
      marks: k.alloc(width * height),
      width,
      height,
      firm: PART,
      faint: LEADS,
      rounds: ROUNDS,
    }),
  )
}

/**
 * Takes away what is covered, and fills what is bare, where fewer than two of the eight px round it are so too: a hair goes on, a speck does not. Of a part all else is
 * left alone. Throws OutOfMemory.
 */
export function dropSpecks(k: Kernels, full: Size, alpha: number, part = whole(full)): void {
  const { width, height } = part
  const from = cornerOf(alpha, full.width, part)
  k.scope(() =>
    k.dropSpecks({
      alpha: from,
      step: full.width,
      before: k.alloc(width * height),
      width,
      height,
      covered: COVERED,
      bare: BARE,
      needed: NEEDED,
      faint: FAINT,
    }),
  )
}

/** Raises what is covered by less than most of what is round it: the colours of somebody's inside may pass for a mixture. Of a part all else is left alone. Throws OutOfMemory. */
export function fillPits(k: Kernels, full: Size, alpha: number, part = whole(full)): void {
  const { width, height } = part
  const from = cornerOf(alpha, full.width, part)
  k.scope(() => k.fillPits(from, full.width, k.alloc(width * height), width, height, PIT))
}
