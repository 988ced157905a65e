import type { Pixels } from '../flatten.js';

/** Size of a picture whose pixels cover `step` by `step` of another. */
export const shrunkSize = ({ width, height }: Pixels, step: number): readonly [width: number, height: number] => [
  Math.floor(width / step),
  Math.floor(height / step),
];

/** Goes over the pixels of such a picture, row by row, with the mean of each channel over what it covers (0–255). `step` is 1 or more and need not be whole. */
export function eachShrunk(picture: Pixels, step: number, visit: (i: number, r: number, g: number, b: number) => void): void {
  const [width, height] = shrunkSize(picture, step);
  const { data } = picture;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let [r, g, b, n] = [0, 0, 0, 0];
      for (let py = Math.floor(y * step); py < Math.floor((y + 1) * step); py++)
        for (let px = Math.floor(x * step); px < Math.floor((x + 1) * step); px++) {
          const i = (py * picture.width + px) * 4;
          r += data[i]!;
          g += data[i + 1]!;
          b += data[i + 2]!;
          n++;
        }
      visit(y * width + x, r / n, g / n, b / n);
    }
}
