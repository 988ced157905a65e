import { PART_TAG, tagText } from '@true-ledger/core/photo';
import { seeded } from '@true-ledger/core/specimen';
import qrcode from 'qrcode';
import {
  BackSide,
  BoxGeometry,
  CanvasTexture,
  Color,
  Mesh,
  MeshBasicMaterial,
  MeshStandardMaterial,
  PlaneGeometry,
  PMREMGenerator,
  RepeatWrapping,
  Scene,
  SRGBColorSpace,
  type Texture,
  type WebGLRenderer,
} from 'three';
import { COLOUR } from '../app/tokens.js';

export const TABLES = ['oak', 'cloth', 'steel', 'concrete', 'paint'] as const;
export type Table = (typeof TABLES)[number];
export const TABLE_WORDS: Readonly<Record<Table, string>> = {
  oak: 'Oak bench',
  cloth: 'Red cloth',
  steel: 'Steel sheet',
  concrete: 'Concrete',
  paint: 'Painted board',
};
export const LAMPS = ['overhead', 'window', 'raking'] as const;
export type Lamp = (typeof LAMPS)[number];
export const LAMP_WORDS: Readonly<Record<Lamp, string>> = { overhead: 'Lamp overhead', window: 'Window', raking: 'Raking lamp' };

const TABLE_COLOUR: Readonly<Record<Table, readonly [number, number, number]>> = {
  oak: [150, 112, 70],
  cloth: [132, 46, 44],
  steel: [120, 124, 130],
  concrete: [126, 124, 120],
  paint: [66, 110, 94],
};

function canvas(size: number, height = size): [HTMLCanvasElement, CanvasRenderingContext2D] {
  const c = document.createElement('canvas');
  c.width = size;
  c.height = height;
  return [c, c.getContext('2d')!];
}

function tableTexture(table: Table): Texture {
  const [c, ink] = canvas(1024);
  const random = seeded(table.length * 97 + 5);
  const [r, g, b] = TABLE_COLOUR[table];
  ink.fillStyle = `rgb(${r},${g},${b})`;
  ink.fillRect(0, 0, 1024, 1024);
  // What runs over the right edge goes on at the left, so that the pattern has no seam.
  const dab = (x: number, y: number, w: number, h: number, by: number): void => {
    ink.fillStyle = by > 0 ? `rgba(255,250,240,${by})` : `rgba(10,6,2,${-by})`;
    ink.fillRect(x, y, w, h);
    if (x + w > 1024) ink.fillRect(x - 1024, y, w, h);
    if (y + h > 1024) ink.fillRect(x, y - 1024, w, h);
  };
  if (table === 'oak')
    for (let k = 0; k < 4200; k++) dab(1024 * random(), 1024 * random(), 90 + 400 * random(), 1 + 2.4 * random(), 0.16 * (random() - 0.62));
  else if (table === 'cloth')
    for (let y = 0; y < 1024; y += 4) for (let x = 0; x < 1024; x += 4) dab(x + ((y / 4) % 2) * 2, y, 2, 3, 0.22 * (random() - 0.45));
  else if (table === 'steel')
    for (let k = 0; k < 5200; k++) dab(1024 * random(), 1024 * random(), 60 + 220 * random(), 1, 0.16 * (random() - 0.5));
  else
    for (let k = 0; k < 9000; k++) {
      const s = table === 'concrete' ? 1 + 9 * random() ** 3 : 30 * random() ** 2;
      ink.fillStyle = random() > 0.5 ? `rgba(255,255,250,${0.05 * random()})` : `rgba(0,0,0,${0.07 * random()})`;
      ink.beginPath();
      ink.arc(1024 * random(), 1024 * random(), s, 0, 7);
      ink.fill();
    }
  const t = new CanvasTexture(c);
  t.colorSpace = SRGBColorSpace;
  t.wrapS = t.wrapT = RepeatWrapping;
  t.repeat.set(4, 4);
  t.anisotropy = 8;
  return t;
}

export function tableMesh(table: Table): Mesh {
  const mesh = new Mesh(
    new PlaneGeometry(900, 900),
    new MeshStandardMaterial({
      map: tableTexture(table),
      roughness: table === 'steel' ? 0.42 : 0.85,
      metalness: table === 'steel' ? 0.7 : 0,
    }),
  );
  mesh.rotation.x = -Math.PI / 2;
  mesh.receiveShadow = true;
  return mesh;
}

/** The application's own part tag, as it is printed. */
export function tagMesh(words: string): Mesh {
  const k = 10;
  const [c, ink] = canvas(PART_TAG.widthMm * k, PART_TAG.heightMm * k);
  ink.scale(k, k);
  ink.fillStyle = COLOUR.paper;
  ink.fillRect(0, 0, PART_TAG.widthMm, PART_TAG.heightMm);
  const { modules } = qrcode.create(tagText({ caseId: '00000000-0000-4000-8000-000000000000', station: 'specimen' }), {
    errorCorrectionLevel: 'M',
  });
  const m = PART_TAG.code.size / modules.size;
  ink.fillStyle = COLOUR.black;
  for (let j = 0; j < modules.size; j++)
    for (let i = 0; i < modules.size; i++)
      if (modules.get(j, i)) ink.fillRect(PART_TAG.code.x + i * m, PART_TAG.code.y + j * m, m + 0.02, m + 0.02);
  for (const p of PART_TAG.patches) {
    ink.fillStyle = `rgb(${p.rgb.join(',')})`;
    ink.fillRect(p.x, p.y, PART_TAG.patchSize, PART_TAG.patchSize);
  }
  ink.fillStyle = COLOUR.black;
  ink.fillRect(PART_TAG.bar.x, PART_TAG.bar.y, PART_TAG.bar.length, PART_TAG.bar.thick);
  ink.font = '2.2px "B612", sans-serif';
  ink.fillText('20 mm', PART_TAG.bar.x, PART_TAG.bar.y + 4.6);
  ink.font = '2.4px "B612", sans-serif';
  ink.fillText(words.slice(0, 26), PART_TAG.bar.x, 26);
  ink.fillText('rendered specimen', PART_TAG.bar.x, 30);
  const t = new CanvasTexture(c);
  t.colorSpace = SRGBColorSpace;
  t.anisotropy = 8;
  const mesh = new Mesh(
    new PlaneGeometry(PART_TAG.widthMm, PART_TAG.heightMm),
    new MeshStandardMaterial({ map: t, roughness: 0.8, metalness: 0 }),
  );
  mesh.rotation.x = -Math.PI / 2;
  mesh.position.y = 0.15;
  mesh.receiveShadow = true;
  return mesh;
}

/** What the metal mirrors: a workshop with a ceiling, lamps and the table below. */
export function surroundings(renderer: WebGLRenderer, table: Table, lamp: Lamp): Texture {
  const scene = new Scene();
  const wall = (w: number, h: number, d: number, x: number, y: number, z: number, colour: Color | number, bright = 1): void => {
    const m = new MeshBasicMaterial({ color: colour, side: BackSide });
    m.color.multiplyScalar(bright);
    const mesh = new Mesh(new BoxGeometry(w, h, d), m);
    mesh.position.set(x, y, z);
    scene.add(mesh);
  };
  const panel = (w: number, d: number, x: number, y: number, z: number, bright: number, warm = 1): void => {
    const m = new MeshBasicMaterial({ color: new Color(1, 0.97, 0.93 / warm) });
    m.color.multiplyScalar(bright);
    const mesh = new Mesh(new BoxGeometry(w, 0.1, d), m);
    mesh.position.set(x, y, z);
    mesh.lookAt(0, 0, 0);
    mesh.rotateX(Math.PI / 2);
    scene.add(mesh);
  };
  wall(20, 9, 20, 0, 4.4, 0, 0x9a9c9c, 1);
  const [r, g, b] = TABLE_COLOUR[table];
  const floor = new Mesh(
    new BoxGeometry(20, 0.1, 20),
    new MeshBasicMaterial({ color: new Color().setRGB(r / 255, g / 255, b / 255, SRGBColorSpace).multiplyScalar(0.7) }),
  );
  floor.position.y = -0.3;
  scene.add(floor);
  if (lamp === 'overhead') {
    panel(2.4, 1.1, -0.8, 5, 0.6, 15);
    panel(1.5, 4, 4.5, 6, -3, 5);
  } else if (lamp === 'window') {
    panel(4.5, 5, -7.5, 3.4, 1, 9, 0.92);
    panel(2, 2, 3, 7, -2, 3);
  } else {
    panel(1.2, 0.7, 5.5, 1.8, 2.2, 24, 1.15);
    panel(3, 3, -3, 7, -2, 2);
  }
  const generator = new PMREMGenerator(renderer);
  const made = generator.fromScene(scene, 0.015).texture;
  generator.dispose();
  return made;
}
