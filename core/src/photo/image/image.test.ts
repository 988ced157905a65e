import type { Pixels } from '../flatten.js';
import { bilinear } from './bilinear.js';
import { eachShrunk, shrunkSize } from './shrink.js';

const picture = (width: number, height: number, at: (x: number, y: number) => readonly [number, number, number]): Pixels => {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < width * height; i++) data.set([...at(i % width, Math.floor(i / width)), 255], 4 * i);
  return { width, height, data };
};
const means = (p: Pixels, step: number): number[][] => {
  const out: number[][] = [];
  eachShrunk(p, step, (i, ...rgb) => (out[i] = rgb));
  return out;
};

describe('a picture made smaller', () => {
  it('has for each pixel the mean of those it covers, by channel', () => {
    const p = picture(4, 2, (x, y) => [10 * x, 100 * y, 7]);
    expect(shrunkSize(p, 2)).toEqual([2, 1]);
    expect(means(p, 2)).toEqual([
      [5, 50, 7],
      [25, 50, 7],
    ]);
  });

  it('covers every pixel once when the step is not whole, and leaves out what fills no pixel', () => {
    const p = picture(10, 10, (x) => [x, 0, 0]);
    const [width, height] = shrunkSize(p, 1.5);
    expect([width, height]).toEqual([6, 6]);
    const row = means(p, 1.5).slice(0, width);
    // Columns 0, 1–2, 3, 4–5, 6, 7–8: the last is left out.
    expect(row.map(([r]) => r)).toEqual([0, 1.5, 3, 4.5, 6, 7.5]);
  });

  it('is itself at a step of 1', () => {
    const p = picture(3, 2, (x, y) => [x, y, 9]);
    expect(means(p, 1)[4]).toEqual([1, 1, 9]);
  });
});

describe('a value between four neighbours', () => {
  const data = [0, 10, 20, 30];
  it('is each of them at its corner, their mean in the middle, and linear along a side', () => {
    const at = (fx: number, fy: number): number => bilinear(data, 0, 1, 2, fx, fy);
    expect([at(0, 0), at(1, 0), at(0, 1), at(1, 1)]).toEqual(data);
    expect(at(0.5, 0.5)).toBe(15);
    expect(at(0.25, 0)).toBe(2.5);
  });
  it('needs no neighbour where none lies beyond', () => {
    expect(bilinear(data, 3, 0, 0, 0, 0)).toBe(30);
  });
});
