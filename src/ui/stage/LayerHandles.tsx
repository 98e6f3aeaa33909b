import type { ComponentProps } from 'react'
import type { Size } from '../../core/shot'
import { useLettersFrame } from '../graphic/use-letters'
import { PinHandles } from './PinHandles'
import { PlaceHandles } from './PlaceHandles'

type Props = Omit<ComponentProps<typeof PlaceHandles>, 'box'> & {
  /** Of the layer's picture. */
  size: Size
  /** A pinned corner is taken hold of, or let go. */
  onCorner: (active: boolean) => void
}

/** A layer's frame on the stage: round its picture, or round its letters. */
export function LayerHandles({ size, onCorner, ...props }: Props) {
  const letters = useLettersFrame(props.layer, props.frame)
  const { pin } = props.layer
  if (pin) return <PinHandles {...props} pin={pin} onActive={onCorner} />
  const isLetters = props.layer.source.kind === 'lettering'
  if (isLetters && !letters) return null
  return <PlaceHandles {...props} box={letters ?? { left: 0, top: 0, ...size }} />
}
