/** Between four neighbours: `at` is the left upper one, `right` and `below` how far on the others lie, `fx` and `fy` how far between them, 0 to 1. */
export function bilinear(data: ArrayLike<number>, at: number, right: number, below: number, fx: number, fy: number): number {
  const upper = data[at]! * (1 - fx) + data[at + right]! * fx;
  const lower = data[at + below]! * (1 - fx) + data[at + below + right]! * fx;
  return upper * (1 - fy) + lower * fy;
}
