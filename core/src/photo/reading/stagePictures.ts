import { WEAR_CLASS_INFO } from '../../damage/classes.js';
import type { Pixels } from '../flatten.js';
import { quantile, type Field } from './field.js';
import { LAYERS, type Layer, type Layered } from './layer.js';
import type { FoundLine } from './lines.js';
import type { Seen } from './light.js';
import type { Lit } from './illumination.js';

/** The picture of one stage of a reading: how one finds out why a reading is what it is. */
export interface StagePicture {
  /** Short name, also that of its file. */
  readonly name: string;
  readonly shows: string;
  readonly pixels: Pixels;
}

/** Taken a picture by a reading at every stage. */
export type Explain = (stage: StagePicture) => void;

type Rgb = readonly [number, number, number];
const BLANK: Rgb = [255, 255, 255];
const HIDDEN: Rgb = [240, 0, 160];

function painted(width: number, height: number, colourAt: (i: number) => Rgb): Pixels {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const [r, g, b] = colourAt(i);
    data[4 * i] = r;
    data[4 * i + 1] = g;
    data[4 * i + 2] = b;
    data[4 * i + 3] = 255;
  }
  return { width, height, data };
}

const grey = (share: number): Rgb => [255 * share, 255 * share, 255 * share];

/** Range of what is seen between two quantiles. */
function rangeOf(p: Field, there: Uint8Array): readonly [low: number, high: number] {
  const values = p.data.filter((_, i) => there[i] === 1 && i % 5 === 0);
  const [low, high] = [quantile(values, 0.01), quantile(values, 0.99)];
  return values.length === 0 ? [0, 1] : [low, Math.max(low + 0.1, high)];
}

/** Logarithmic colour that is shown at full strength. */
const STRONG = 0.8;

/** A colour by its redness (log R/G) and yellowness (log G/B) at one light, so that nothing but colour is seen. */
const chroma = (redness: number, yellowness: number): Rgb => [
  150 * Math.exp(0.5 * redness),
  150 * Math.exp(-0.25 * redness + 0.25 * yellowness),
  150 * Math.exp(-0.5 * yellowness),
];

/** What is seen before anything is concluded: the developed surface, its light, its colour. */
export function explainSeen(explain: Explain, flat: Pixels, seen: Seen): void {
  const { width, height } = seen.light;
  explain({ name: 'developed', shows: 'the surface unrolled to scale', pixels: flat });
  const [low, high] = rangeOf(seen.light, seen.there);
  explain({
    name: 'light',
    shows: 'its light (logarithm of luminance); magenta is not looked at, white is glare',
    pixels: painted(width, height, (i) =>
      seen.there[i] === 0 ? HIDDEN : seen.glare[i] ? BLANK : grey(0.92 * ((seen.light.data[i]! - low) / (high - low))),
    ),
  });
  const within = (v: number): number => Math.max(-STRONG, Math.min(STRONG, v));
  explain({
    name: 'colour',
    shows: 'its colour at one light; magenta is not looked at',
    pixels: painted(width, height, (i) =>
      seen.there[i] === 0 ? HIDDEN : chroma(within(seen.redness.data[i]!), within(seen.yellowness.data[i]!)),
    ),
  });
}

/** What was concluded: where the light was taken from, the surface without it, how sure, the layers, the lines. */
export function explainApart(explain: Explain, seen: Seen, lit: Lit, layered: Layered): void {
  const { width, height } = seen.light;
  explain({
    name: 'corrected',
    shows: 'the surface with lamp and cast taken out: what sound metal shows is mid grey',
    pixels: painted(width, height, (i) => {
      if (seen.there[i] === 0) return HIDDEN;
      const light = Math.max(0.15, Math.min(1.7, Math.exp(0.6 * lit.shade.data[i]!)));
      const [r, g, b] = chroma(lit.redder.data[i]!, lit.yellower.data[i]!);
      return [r * light, g * light, b * light];
    }),
  });
  explainLayers(explain, layered, width, height);
}

/** How sure each place is, and the layers. */
export function explainLayers(explain: Explain, layered: Layered, width: number, height: number): void {
  explain({
    name: 'sure',
    shows: 'how sure each place is: black not at all, white wholly',
    pixels: painted(width, height, (i) => grey(layered.sure[i]!)),
  });
  explain({
    name: 'layers',
    shows: LAYERS.map((l) => `${l} ${COLOURS[l]}`).join(', '),
    pixels: painted(width, height, (i) => rgbOf(COLOURS[LAYERS[layered.layer[i]!]!])),
  });
}

/** The lines that were found, over the developed surface: through ones dark red, others blue. */
export function explainLines(explain: Explain, flat: Pixels, lines: readonly FoundLine[], spanDeg: number): void {
  const { width, height } = flat;
  const data = Uint8ClampedArray.from(flat.data, (v, i) => (i % 4 === 3 ? 255 : 128 + v / 2));
  for (const line of lines) {
    const [from, to] = spanDeg > 0 ? [(line.fromDeg / spanDeg) * width, (line.toDeg / spanDeg) * width] : [0, width];
    const at = Math.round((1 - line.axial) * height);
    for (let x = Math.max(0, Math.floor(from)); x < Math.min(width, to); x++)
      for (const y of [at - 1, at, at + 1])
        if (y >= 0 && y < height) data.set(line.through ? [150, 0, 0] : [0, 40, 220], 4 * (y * width + x));
  }
  explain({ name: 'lines', shows: `${lines.length} lines found; dark red those through to the lining`, pixels: { width, height, data } });
}

const COLOURS: Readonly<Record<Layer, string>> = {
  ...(Object.fromEntries(Object.entries(WEAR_CLASS_INFO).map(([name, info]) => [name, info.colour])) as Record<
    Exclude<Layer, 'scored' | 'void' | 'unseen'>,
    string
  >),
  scored: '#2f6fd0',
  void: '#000000',
  unseen: '#f000a0',
};

const rgbOf = (hex: string): Rgb => [1, 3, 5].map((k) => parseInt(hex.slice(k, k + 2), 16)) as unknown as Rgb;
