// How the picture lies in its well, and the way between screen and picture.
import type { Camera } from '../../app/store'
import type { Size } from '../../core/shot'

/** px of the well for what floats over it: tools, views, and above what a change will do. */
const MARGIN = { left: 62, right: 18, top: 33, bottom: 55 }
const ZOOM = { least: 0.02, most: 32 }

/** The camera that shows the whole picture, clear of what floats over the well. */
export function fitCamera(picture: Size, well: Size): Camera {
  const width = Math.max(40, well.width - MARGIN.left - MARGIN.right)
  const height = Math.max(40, well.height - MARGIN.top - MARGIN.bottom)
  const zoom = Math.min(width / picture.width, height / picture.height)
  return {
    zoom,
    x: MARGIN.left + (width - picture.width * zoom) / 2,
    y: MARGIN.top + (height - picture.height * zoom) / 2,
  }
}

/** The camera zoomed by a factor with the point under (x, y) of the well held in place. */
export function zoomAt(camera: Camera, factor: number, x: number, y: number): Camera {
  const zoom = Math.max(ZOOM.least, Math.min(ZOOM.most, camera.zoom * factor))
  const by = zoom / camera.zoom
  return { zoom, x: x - (x - camera.x) * by, y: y - (y - camera.y) * by }
}

/** Pixels 1:1 with the middle of the well held. */
export const actualPixels = (camera: Camera, well: Size): Camera => {
  const { x, y, zoom } = zoomAt(camera, 1 / camera.zoom, well.width / 2, well.height / 2)
  return { zoom, x: Math.round(x), y: Math.round(y) }
}
