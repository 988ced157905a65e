// Developed surfaces with the true class of every pixel, from pictures of another renderer and of the studio's tuning set: what the classifier of surfaces is trained on.
// node bench/segment/extract.mjs OUT --part shell|journal|skirt|thrust|crown [--folder DIR] [--studio 0-100] [--scene|--outline]
// With --scene: whole pictures made small, with what of them is the surface of the part. With --outline: whole pictures made small, with the corners of the part.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { cameraModelOf, cardColour, develop, eachShrunk, projectShell, reduced, sceneOf, surroundingsOf } from '@true-ledger/core/photo';
import { MAP_CLASSES, seeded, surfaceMaps, takeFlat, takeRound, takeShell } from '@true-ledger/core/specimen';
import { compressed, movedOff, outlineOf, SETS } from '../sets.mjs';
import { flatSpecimen } from '../flats.mjs';
import { FACING, roundSpecimen } from '../rounds.mjs';
import { shellSpecimen } from '../shells.mjs';

/** Classes told apart on each part; what is none of them is sound. The last is no surface. */
export const CLASSES = {
  shell: ['sound', 'lining', 'steel', 'heat', 'rust', 'embedded', 'void'],
  journal: ['sound', 'heat', 'transfer', 'rust', 'scored', 'void'],
  skirt: ['sound', 'scuffed', 'void'],
  thrust: ['sound', 'lining', 'steel', 'heat', 'rust', 'embedded', 'void'],
  crown: ['sound', 'deposit', 'missing', 'rust', 'void'],
};
const FOLDER = { shell: 'shells', journal: 'journals', skirt: 'pistons' };
/** Names of the other renderer. */
const OURS = { copper: 'lining', blued: 'heat', hole: 'void' };
const PX_PER_MM = 18;
const MOST_PIXELS = 1_000_000;
const BY = 3;

/** Indices of a palette picture. */
async function indexed(path) {
  const bytes = readFileSync(path);
  const at = bytes.indexOf('PLTE');
  const palette = bytes.subarray(at + 4, at + 4 + bytes.readUInt32BE(at - 4));
  const { data, info } = await sharp(path).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const key = new Map();
  for (let k = palette.length / 3 - 1; k >= 0; k--) key.set(palette.readUIntBE(3 * k, 3), k);
  return Uint8Array.from({ length: info.width * info.height }, (_, i) => key.get(data.readUIntBE(3 * i, 3)) ?? 255);
}

/** Class by pixel of the picture, 255 where there is no surface: `place(u, v)` is the pixel of a true place, null when hidden. */
function labelled({ width, height }, place, label) {
  const out = new Uint8Array(width * height).fill(255);
  const [U, V] = [2880, 1000];
  for (let b = 0; b < V; b++)
    for (let a = 0; a < U; a++) {
      const [u, v] = [(a + 0.5) / U, (b + 0.5) / V];
      const p = place(u, v);
      if (!p) continue;
      const [x, y] = [Math.floor(p[0]), Math.floor(p[1])];
      if (x >= 0 && y >= 0 && x < width && y < height) out[y * width + x] = label(u, v);
    }
  return out;
}

function save(dir, id, part, picture, corners, size, labels, white) {
  const found = cameraModelOf(part, picture, corners, size);
  if (!found.ok) return;
  const camera = found.value;
  const scale = Math.min(PX_PER_MM, Math.sqrt(MOST_PIXELS / (camera.widthMm * camera.heightMm)));
  const flat = develop(camera, picture, Math.round(scale * camera.widthMm));
  const pixels = reduced(flat.pixels, BY);
  const { width, height } = pixels;
  const none = CLASSES[part].indexOf('void');
  const truth = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = camera.project((BY * (x + 0.5)) / flat.pixels.width, 1 - (BY * (y + 0.5)) / flat.pixels.height);
      const l = labels[Math.floor(py) * picture.width + Math.floor(px)];
      truth[y * width + x] = l === undefined || l === 255 ? none : l;
    }
  const cosine = Array.from({ length: width }, (_, x) => camera.cosine((x + 0.5) / width, 0.5));
  write(dir, { id, width, height, pxPerMm: scale / BY, white, cosine, surroundings: surroundingsOf(camera, picture) }, pixels, truth);
}

function write(dir, about, pixels, truth) {
  const head = Buffer.from(JSON.stringify(about));
  const n = Buffer.alloc(4);
  n.writeUInt32LE(head.length);
  writeFileSync(join(dir, `${about.id}.bin`), Buffer.concat([n, head, Buffer.from(pixels.data.buffer), Buffer.from(truth.buffer)]));
}

/** One of the surfaces that were written. */
export function load(path) {
  const bytes = readFileSync(path);
  const n = bytes.readUInt32LE(0);
  const head = JSON.parse(bytes.toString('utf8', 4, 4 + n));
  const size = head.width * head.height;
  const at = 4 + n;
  return {
    ...head,
    pixels: { width: head.width, height: head.height, data: new Uint8ClampedArray(bytes.subarray(at, at + 4 * size)) },
    truth: new Uint8Array(bytes.subarray(at + 4 * size)),
  };
}

/** Pictures of another renderer: what is seen in them, where every place of the surface lies, and its class. */
async function* others(part, folder) {
  for (const file of readdirSync(join(folder, FOLDER[part])).filter((f) => f.endsWith('.json'))) {
    const t = JSON.parse(readFileSync(join(folder, FOLDER[part], file), 'utf8'));
    const { data, info } = await sharp(join(folder, FOLDER[part], t.image))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const picture = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
    const mask = await indexed(join(folder, FOLDER[part], t.mask));
    const to = Object.fromEntries(
      Object.entries(t.classes).map(([k, name]) => [k, Math.max(0, CLASSES[part].indexOf(OURS[name] ?? name))]),
    );
    const { node_px: nodes, view_cos: cosine, angle_cells: A, axial_cells: B } = t.grid;
    const span = part === 'shell' ? 180 : 360;
    const from = part === 'shell' ? 0 : t.angle_facing_camera_deg - 90;
    const turn = (u) => ((((from + u * 180) / span) % 1) + 1) % 1;
    const place = (u, v) => {
      const [a, b] = [turn(u) * A, v * B];
      const [i, j] = [Math.min(A - 1, Math.floor(a)), Math.min(B - 1, Math.floor(b))];
      if (part !== 'shell' && cosine[i][j] < 0.05) return null;
      const [s, q] = [a - i, b - j];
      return [0, 1].map(
        (k) =>
          (nodes[i][j][k] * (1 - s) + nodes[i + 1][j][k] * s) * (1 - q) + (nodes[i][j + 1][k] * (1 - s) + nodes[i + 1][j + 1][k] * s) * q,
      );
    };
    const label = (u, v) => to[mask[Math.min(479, Math.floor(v * 480)) * 1440 + Math.floor(turn(u) * 1440)]];
    const c = t.face_corners_px;
    const card = t.card?.corners_px;
    yield {
      id: t.id,
      picture,
      place,
      label,
      corners: part === 'shell' ? [c.left_front, c.left_rear, c.right_rear, c.right_front] : outlineOf(nodes),
      size: { radiusMm: part === 'shell' ? t.part_mm.inner_radius : t.part_mm.dia / 2, widthMm: null },
      white: card ? cardColour(picture, [card.top_left, card.top_right, card.bottom_right, card.bottom_left]) : null,
    };
    console.error(t.id);
  }
}

/** The same of pictures of the studio. */
async function* studio(part, set, first, end) {
  const at = MAP_CLASSES.map((name) => Math.max(0, CLASSES[part].indexOf(OURS[name] ?? name)));
  for (let n = first; n < end; n++) {
    const { s, quality, taken, maps, place, texel, arc } = STUDIO[part === 'shell' ? 'shell' : FLAT.includes(part) ? 'flat' : 'round'](
      part,
      set,
      n,
    );
    // A score is told apart where the part has that class: its groove, whatever its bottom is made of.
    const scores = CLASSES[part].includes('scored') ? s.damages.filter((d) => d.kind === 'score') : [];
    const scored = (u, v) =>
      scores.some((d) => Math.abs(v - d.axial) * s.widthMm < d.widthMm / 2 && arc(u) >= d.fromDeg && arc(u) <= d.toDeg);
    yield {
      id: `t${set === SETS.train ? 'r' : ''}${String(n).padStart(3, '0')}`,
      picture: await compressed(taken.pixels, quality),
      place,
      label: (u, v) => (scored(u, v) ? CLASSES[part].indexOf('scored') : at[maps.truth[texel(u, v)]]),
      corners: taken.corners,
      size: { radiusMm: s.radiusMm, widthMm: part === 'shell' || part === 'thrust' ? s.widthMm : null },
      white: null,
    };
    console.error(n);
  }
}

/** Parts whose face is flat. */
const FLAT = ['thrust', 'crown'];
const texelOf = (maps, share) => (u, v) =>
  Math.floor(v * maps.rows) * maps.columns + Math.min(maps.columns - 1, Math.floor(share(u) * maps.columns));

/** Takes the n-th picture of a set: where every place of the surface lies in it (null where it is hidden), and its texel. */
const STUDIO = {
  shell: (part, set, n) => {
    const { s, shot, quality } = shellSpecimen(set, n);
    const maps = surfaceMaps(s);
    const taken = takeShell(s, maps, shot);
    return { s, quality, taken, maps, place: (u, v) => projectShell(taken.pose, u * 180, v), texel: texelOf(maps, (u) => u) };
  },
  round: (part, set, n) => {
    const { s, shot, quality } = roundSpecimen(part, set, n);
    const maps = surfaceMaps(s, 2400, 400);
    const taken = takeRound(s, maps, shot, part === 'journal' ? 'journal' : 'piston', FACING);
    const arc = (u) => FACING - 90 + u * 180;
    const place = (u, v) => (taken.cosine(arc(u), v) < 0.03 ? null : taken.project(arc(u), v));
    return { s, quality, taken, maps, place, arc, texel: texelOf(maps, (u) => arc(u) / maps.spanDeg) };
  },
  flat: (part, set, n) => {
    const { s, shot, quality, form } = flatSpecimen(part, set, n);
    const maps = form === 'disc' ? surfaceMaps(s, 1000, 1000) : surfaceMaps(s, 2400, 160);
    const taken = takeFlat(s, maps, shot, form);
    const place = (u, v) => (form === 'disc' && Math.hypot(u - 0.5, v - 0.5) > 0.5 ? null : taken.project(u, v));
    return { s, quality, taken, maps, place, texel: texelOf(maps, (u) => u) };
  },
};

/** Writes the developed surfaces of a picture: of the other renderer's also with corners that are a little off. */
function saveSurfaces(dir, part, { id, picture, place, label, corners, size, white }, others) {
  const labels = labelled(picture, place, label);
  const r = seeded(others ? id.charCodeAt(1) * 100 + id.charCodeAt(2) : Number(id.replace(/\D/g, '')) + 5);
  if (!others) return save(dir, id, part, picture, movedOff(corners, 0.008 * r(), r), size, labels, white);
  for (const off of [0, 1, 2])
    save(dir, `${id}-${off}`, part, picture, off === 0 ? corners : movedOff(corners, 0.007 * off, r), size, labels, white);
}

/** Crops of a picture that are written: the whole, and two pieces of other places and sizes. */
const CROPS = 3;

/** Writes a picture, made small, with what of it is the surface of the part: 0 surface, 1 beside it, 2 an oil hole. */
function saveScene(dir, part, { id, picture, place, label, corners }) {
  const r = seeded([...id].reduce((h, c) => (Math.imul(h, 31) + c.charCodeAt(0)) >>> 0, 7));
  const hole = CLASSES[part].indexOf('void');
  for (let k = 0; k < CROPS; k++) {
    const crop = k === 0 ? { left: 0, top: 0, ...picture } : cropAbout(corners, picture, r);
    const small = shrunk(picture, crop);
    const { width, height, step } = small;
    const truth = new Uint8Array(width * height).fill(1);
    const [U, V] = [1400, 500];
    for (let b = 0; b < V; b++)
      for (let a = 0; a < U; a++) {
        const p = place((a + 0.5) / U, (b + 0.5) / V);
        if (!p) continue;
        const [x, y] = [Math.floor((p[0] - crop.left) / step), Math.floor((p[1] - crop.top) / step)];
        if (x >= 0 && y >= 0 && x < width && y < height) truth[y * width + x] = label((a + 0.5) / U, (b + 0.5) / V) === hole ? 2 : 0;
      }
    write(dir, { id: `${id}-${k}`, width, height }, small, truth);
  }
}

/** A piece of a picture with the whole part in it. */
function cropAbout(corners, { width, height }, r) {
  const [xs, ys] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
  const side = (least, most, whole) => {
    const gap = 0.06 * whole;
    const from = Math.max(0, Math.floor((least - gap) * r()));
    const to = Math.min(whole, Math.ceil(most + gap + (whole - most - gap) * r()));
    return [Math.max(0, from), Math.max(0, to - from)];
  };
  const [left, w] = side(Math.min(...xs), Math.max(...xs), width);
  const [top, h] = side(Math.min(...ys), Math.max(...ys), height);
  return { left, top, width: w, height: h };
}

function shrunk(picture, { left, top, width, height }) {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    data.set(picture.data.subarray(((top + y) * picture.width + left) * 4, ((top + y) * picture.width + left + width) * 4), y * width * 4);
  return sceneOf({ width, height, data });
}

/** Long side of a picture that is written with its corners. */
const OUTLINE_SIDE = 800;

/** Writes a picture, made small, with the corners of the part in its pixels. */
function saveOutline(dir, { id, picture, corners }) {
  const step = Math.max(1, Math.max(picture.width, picture.height) / OUTLINE_SIDE);
  const [width, height] = [Math.floor(picture.width / step), Math.floor(picture.height / step)];
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  eachShrunk(picture, step, (i, r, g, b) => data.set([r, g, b], 4 * i));
  write(dir, { id, width, height, corners: corners.map((p) => p.map((v) => v / step)) }, { data }, new Uint8Array(0));
}

if (process.argv[1].endsWith('extract.mjs')) {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      part: { type: 'string', default: 'shell' },
      folder: { type: 'string', default: '' },
      studio: { type: 'string', default: '0-0' },
      set: { type: 'string', default: 'train' },
      scene: { type: 'boolean', default: false },
      outline: { type: 'boolean', default: false },
    },
  });
  const { part, scene, outline } = values;
  const dir = join(positionals[0], scene ? `${part}-scene` : outline ? `${part}-outline` : part);
  mkdirSync(dir, { recursive: true });
  const keep = (shown, other) =>
    scene ? saveScene(dir, part, shown) : outline ? saveOutline(dir, shown) : saveSurfaces(dir, part, shown, other);
  if (values.folder && existsSync(values.folder)) for await (const shown of others(part, values.folder)) keep(shown, true);
  const [first, end] = values.studio.split('-').map(Number);
  for await (const shown of studio(part, SETS[values.set], first, end)) keep(shown, false);
}
