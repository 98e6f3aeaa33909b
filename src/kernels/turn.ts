// Quarter turns of an RGBA8 picture.

/** Turns width x height pixels at src clockwise by quarters (1, 2 or 3) into dst. */
export function turnPicture(src: usize, dst: usize, width: i32, height: i32, quarters: i32): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let at = 0;
      if (quarters == 1) at = x * height + (height - 1 - y);
      else if (quarters == 2) at = (height - 1 - y) * width + (width - 1 - x);
      else at = (width - 1 - x) * height + y;
      store<u32>(dst + (at << 2), load<u32>(src + ((y * width + x) << 2)));
    }
  }
}
