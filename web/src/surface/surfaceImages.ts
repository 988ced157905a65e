import { SURFACE_WIDTHS, type SurfaceSize } from '@true-ledger/contract';
import type { StationView } from '@true-ledger/core/case';
import type { WearMap } from '@true-ledger/core/damage';
import { isFlattened } from '@true-ledger/core/photo';
import { useEffect, useReducer, useState } from 'react';
import { fetchFile } from '../app/server.js';
import { drawWearRaster } from './paint.js';

/** Pictures of a size that are kept at once; a large one takes 4 MB. */
const KEPT: Readonly<Record<SurfaceSize, number>> = { small: 600, middle: 240, large: 24 };
const AT_ONCE = 4;
/** After so long a place whose surface could not be had is asked for again, ms. */
const AGAIN_MS = 15_000;

/** Sizes from the smallest: the first that is wide enough is asked for, the widest at hand is shown meanwhile. */
const SIZES = (Object.keys(SURFACE_WIDTHS) as SurfaceSize[]).sort((a, b) => SURFACE_WIDTHS[a] - SURFACE_WIDTHS[b]);

interface Held {
  /** What the surface was made of; another when pictures or corners change. */
  readonly from: string;
  readonly image: ImageBitmap | null;
  readonly asked: number;
}

/** Is there a photographed surface of this place: a picture whose corners are set? */
export function isPhotographed({ station, photos, corners }: Pick<StationView, 'station' | 'photos' | 'corners'>): boolean {
  return station.surface !== null && isFlattened(station.part) && photos.some((p) => corners[p.value.sha256] !== undefined);
}

/** Photographed and drawn surfaces of a case at hand for drawing: asked for in the size they are shown in, the larger ones forgotten when others are looked at. */
export class SurfaceImages {
  private readonly held = new Map<string, Held>();
  private readonly wanted = new Map<string, { address: string; from: string }>();
  private readonly drawings = new Map<string, { wear: WearMap; canvas: HTMLCanvasElement }>();
  private readonly waiting: Array<() => void> = [];
  private running = 0;
  private ended = false;

  constructor(
    private readonly caseId: string,
    /** Called whenever a picture has come. */
    private readonly arrived: () => void,
  ) {}

  /** The best picture at hand of a surface shown so many pixels wide; null where none is, or none has come yet. */
  photographed(view: StationView, px: number): ImageBitmap | null {
    if (!isPhotographed(view)) return null;
    const { id } = view.station;
    const from = JSON.stringify([
      view.photos.map((p) => [p.value.sha256, view.corners[p.value.sha256]?.value]),
      view.reads.map((r) => r.version.entry),
    ]);
    const size = SIZES.find((s) => SURFACE_WIDTHS[s] >= px) ?? SIZES.at(-1)!;
    this.want(id, size, from);
    const best = SIZES.slice(0, SIZES.indexOf(size) + 1)
      .reverse()
      .concat(SIZES.slice(SIZES.indexOf(size) + 1))
      .find((s) => this.held.get(`${id}/${s}`)?.image);
    return best ? this.held.get(`${id}/${best}`)!.image : null;
  }

  /** Answers once nothing that was asked for is on its way any more. */
  settled(): Promise<void> {
    if (this.running === 0 && this.wanted.size === 0) return Promise.resolve();
    return new Promise((done) => this.waiting.push(done));
  }

  /** The wear of a surface as it was drawn or read, a pixel a cell; null where nothing is known of it. */
  drawn({ station, wear }: StationView): HTMLCanvasElement | null {
    if (!wear || !station.surface) return null;
    const held = this.drawings.get(station.id);
    if (held?.wear === wear) return held.canvas;
    const canvas = document.createElement('canvas');
    drawWearRaster(canvas, wear, station.surface);
    this.drawings.set(station.id, { wear, canvas });
    return canvas;
  }

  /** Nothing more is fetched; what is held is let go. */
  end(): void {
    this.ended = true;
    this.wanted.clear();
    for (const done of this.waiting.splice(0)) done();
    for (const { image } of this.held.values()) image?.close();
    this.held.clear();
  }

  private want(id: string, size: SurfaceSize, from: string): void {
    const name = `${id}/${size}`;
    const held = this.held.get(name);
    if (held?.from === from) {
      // Looked at last, so let go last.
      this.held.delete(name);
      this.held.set(name, held);
      if (held.image || performance.now() - held.asked < AGAIN_MS) return;
    }
    this.wanted.set(name, { address: `/api/cases/${this.caseId}/surfaces/${encodeURIComponent(id)}/${size}`, from });
    this.next();
  }

  private next(): void {
    if (this.ended || this.running >= AT_ONCE) return;
    const first = this.wanted.entries().next();
    if (first.done) return;
    const [name, { address, from }] = first.value;
    this.wanted.delete(name);
    const before = this.held.get(name);
    this.held.set(name, { from, image: before?.image ?? null, asked: performance.now() });
    this.running++;
    void this.fetch(address)
      .then((image) => {
        if (this.ended) return image?.close();
        if (!image) {
          // Nothing else may be drawn meanwhile: the page is drawn again when it may be asked for again.
          setTimeout(() => this.ended || this.arrived(), AGAIN_MS + 100);
          return;
        }
        before?.image?.close();
        this.held.set(name, { from, image, asked: performance.now() });
        this.forget();
        this.arrived();
      })
      .finally(() => {
        this.running--;
        this.next();
        if (this.running === 0 && this.wanted.size === 0) for (const done of this.waiting.splice(0)) done();
      });
  }

  private async fetch(address: string): Promise<ImageBitmap | null> {
    const file = await fetchFile(address);
    if (!file.ok) return null;
    return createImageBitmap(file.value.blob).catch(() => null);
  }

  private forget(): void {
    for (const size of SIZES) {
      const names = [...this.held.keys()].filter((n) => n.endsWith(`/${size}`));
      for (const name of names.slice(0, Math.max(0, names.length - KEPT[size]))) {
        this.held.get(name)?.image?.close();
        this.held.delete(name);
      }
    }
  }
}

/** The surfaces of a case at hand for as long as a part of the page is drawn; it is drawn again when one has come. */
export function useSurfaceImages(caseId: string): SurfaceImages {
  const [, drawAgain] = useReducer((n: number) => n + 1, 0);
  const [images, setImages] = useState(() => new SurfaceImages(caseId, drawAgain));
  useEffect(() => {
    const own = new SurfaceImages(caseId, drawAgain);
    setImages(own);
    return () => own.end();
  }, [caseId]);
  return images;
}
