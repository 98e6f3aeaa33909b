// Four rows of four as four columns: first `evens` and `others` of two rows each, then `lows` and `highs` of those.

// @ts-expect-error: decorator
@inline
export function evens(a: v128, b: v128): v128 { return i8x16.shuffle(a, b, 0, 1, 2, 3, 16, 17, 18, 19, 8, 9, 10, 11, 24, 25, 26, 27); }

// @ts-expect-error: decorator
@inline
export function others(a: v128, b: v128): v128 { return i8x16.shuffle(a, b, 4, 5, 6, 7, 20, 21, 22, 23, 12, 13, 14, 15, 28, 29, 30, 31); }

// @ts-expect-error: decorator
@inline
export function lows(a: v128, b: v128): v128 { return i8x16.shuffle(a, b, 0, 1, 2, 3, 4, 5, 6, 7, 16, 17, 18, 19, 20, 21, 22, 23); }

// @ts-expect-error: decorator
@inline
export function highs(a: v128, b: v128): v128 { return i8x16.shuffle(a, b, 8, 9, 10, 11, 12, 13, 14, 15, 24, 25, 26, 27, 28, 29, 30, 31); }
