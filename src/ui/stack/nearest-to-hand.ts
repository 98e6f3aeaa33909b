import { type CollisionDetection, closestCenter } from '@dnd-kit/core'

/** The place whose middle is nearest to the hand: an open card is tall, and its own middle far from where it is held. */
export const nearestToHand: CollisionDetection = args => {
  const at = args.pointerCoordinates?.y
  if (at === undefined) return closestCenter(args)
  return closestCenter({ ...args, collisionRect: { ...args.collisionRect, top: at, bottom: at, height: 0 } })
}
