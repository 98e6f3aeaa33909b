/** n bytes from src to dst, which may overlap. */
export function copyBytes(dst: usize, src: usize, n: i32): void {
  memory.copy(dst, src, n);
}
