import type { ComponentProps } from 'react'
import type { Size } from '../../core/shot'
import { useLettersFrame } from '../graphic/use-letters'
import { PlaceHandles } from './PlaceHandles'

type Props = Omit<ComponentProps<typeof PlaceHandles>, 'box'> & {
  /** Of the layer's picture. */
  size: Size
}

/** A layer's frame on the stage: round its picture, or round its letters. */
export function LayerHandles({ size, ...props }: Props) {
  const letters = useLettersFrame(props.layer, props.frame)
  const isLetters = props.layer.source.kind === 'lettering'
  if (isLetters && !letters) return null
  return <PlaceHandles {...props} box={letters ?? { left: 0, top: 0, ...size }} />
}
