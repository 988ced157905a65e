import { seeded, type DebrisKind, type Severity, type SpecimenForm, type SurfaceMaps } from '@true-ledger/core/specimen';
import {
  ACESFilmicToneMapping,
  DirectionalLight,
  PCFSoftShadowMap,
  PerspectiveCamera,
  Scene,
  WebGLRenderer,
  type Mesh,
  type Object3D,
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { strewn } from './debris.js';
import { buildPart } from './parts/buildPart.js';
import type { BuiltPart } from './parts/workbench.js';
import { surroundings, tableMesh, tagMesh, type Lamp, type Table } from './room.js';
import { surfaceTextures, type SurfaceTextures } from './textures.js';

export interface Setting {
  readonly table: Table;
  readonly lamp: Lamp;
  readonly tag: boolean;
}

export interface ShownSpecimen {
  readonly form: SpecimenForm;
  readonly maps: SurfaceMaps;
  /** Names what is shown, for those who wait for it. */
  readonly key: string;
  /** On the tag. */
  readonly words: string;
  readonly debris: { readonly kind: DebrisKind; readonly severity: Severity } | null;
}

export interface Stage {
  readonly show: (specimen: ShownSpecimen, setting: Setting) => void;
  readonly resize: (width: number, height: number) => void;
  /** Turns the camera by degrees. */
  readonly turn: (sideways: number, up: number) => void;
  /** Back to where the camera stands at first. */
  readonly home: () => void;
  /** The view as a JPEG with grain of a camera. */
  readonly picture: (width: number, height: number) => Promise<Blob>;
  readonly dispose: () => void;
}

const LIGHT_FROM: Readonly<Record<Lamp, readonly [number, number, number]>> = {
  overhead: [-0.5, 1.6, 0.5],
  window: [-1.6, 0.9, 0.3],
  raking: [1.5, 0.45, 0.6],
};

/** A canvas with a part on a workshop table. Draws when something changed, not all the time. */
export function createStage(element: HTMLCanvasElement): Stage {
  const renderer = new WebGLRenderer({ canvas: element, antialias: true, preserveDrawingBuffer: true });
  renderer.toneMapping = ACESFilmicToneMapping;
  renderer.toneMappingExposure = 0.95;
  renderer.shadowMap.enabled = true;
  renderer.shadowMap.type = PCFSoftShadowMap;
  const scene = new Scene();
  const camera = new PerspectiveCamera(24, 4 / 3, 5, 3000);
  const controls = new OrbitControls(camera, element);
  controls.maxPolarAngle = Math.PI / 2 - 0.05;
  controls.enableDamping = false;
  const sun = new DirectionalLight(0xfff4e6, 0.9);
  sun.castShadow = true;
  sun.shadow.mapSize.set(1024, 1024);
  sun.shadow.radius = 6;
  scene.add(sun, sun.target);
  let built: BuiltPart | null = null;
  let textures: SurfaceTextures | null = null;
  let extras: Object3D[] = [];
  let settingKey = '';
  let room: Mesh[] = [];
  let asked = 0;

  const draw = (): void => {
    if (asked) return;
    asked = requestAnimationFrame(() => {
      asked = 0;
      renderer.render(scene, camera);
    });
  };
  controls.addEventListener('change', draw);

  const release = (o: Object3D): void => {
    scene.remove(o);
    o.traverse((node) => {
      const mesh = node as Mesh;
      mesh.geometry?.dispose();
      for (const m of mesh.material ? [mesh.material].flat() : []) {
        if ('map' in m && m.map && !textures) (m.map as { dispose(): void }).dispose();
        m.dispose();
      }
    });
  };

  const home = (): void => {
    if (!built) return;
    const far = (built.sizeMm * 0.78) / Math.tan((camera.fov * Math.PI) / 360) / 1.3;
    controls.target.set(0, built.lookMm, 0);
    camera.position.set(0.05 * far, built.lookMm + 0.86 * far, 0.5 * far);
    controls.minDistance = 0.35 * far;
    controls.maxDistance = 2.2 * far;
    controls.update();
    draw();
  };

  const show = (specimen: ShownSpecimen, setting: Setting): void => {
    const key = `${setting.table} ${setting.lamp}`;
    if (key !== settingKey) {
      settingKey = key;
      for (const m of room) release(m);
      room = [tableMesh(setting.table)];
      scene.add(...room);
      scene.environment?.dispose();
      scene.environment = surroundings(renderer, setting.table, setting.lamp);
      scene.environmentIntensity = 1;
    }
    const before = built?.sizeMm;
    if (built) release(built.group);
    for (const e of extras) release(e);
    textures?.dispose();
    textures = surfaceTextures(specimen.maps);
    built = buildPart(specimen.form, textures);
    scene.add(built.group);
    extras = [];
    if (specimen.debris) extras.push(strewn(specimen.debris.kind, specimen.debris.severity, 77));
    if (setting.tag) {
      const tag = tagMesh(specimen.words);
      // Behind the part, a little askew, as one lays it down.
      tag.position.x = 0.16 * built.sizeMm;
      tag.position.z = -built.backMm - 23;
      tag.rotation.z = -0.07;
      extras.push(tag);
    }
    scene.add(...extras);
    const [x, y, z] = LIGHT_FROM[setting.lamp];
    const s = built.sizeMm;
    sun.position.set(x * 2 * s, y * 2 * s, z * 2 * s);
    for (const side of ['left', 'bottom'] as const) sun.shadow.camera[side] = -1.6 * s;
    for (const side of ['right', 'top'] as const) sun.shadow.camera[side] = 1.6 * s;
    sun.shadow.camera.near = 0.2 * s;
    sun.shadow.camera.far = 7 * s;
    sun.shadow.camera.updateProjectionMatrix();
    sun.shadow.needsUpdate = true;
    if (before !== built.sizeMm) home();
    draw();
  };

  return {
    show,
    home,
    resize: (width, height) => {
      renderer.setPixelRatio(Math.min(2, globalThis.devicePixelRatio));
      renderer.setSize(width, height, false);
      camera.aspect = width / height;
      camera.updateProjectionMatrix();
      draw();
    },
    turn: (sideways, up) => {
      const offset = camera.position.clone().sub(controls.target);
      const r = offset.length();
      const polar = Math.min(Math.PI / 2 - 0.05, Math.max(0.05, Math.acos(offset.y / r) - (up * Math.PI) / 180));
      const around = Math.atan2(offset.x, offset.z) + (sideways * Math.PI) / 180;
      camera.position.set(
        controls.target.x + r * Math.sin(polar) * Math.sin(around),
        controls.target.y + r * Math.cos(polar),
        controls.target.z + r * Math.sin(polar) * Math.cos(around),
      );
      controls.update();
      draw();
    },
    picture: async (width, height) => {
      const [was, aspect, ratio] = [{ width: element.width, height: element.height }, camera.aspect, renderer.getPixelRatio()];
      renderer.setPixelRatio(1);
      renderer.setSize(width, height, false);
      camera.aspect = width / height;
      camera.updateProjectionMatrix();
      renderer.render(scene, camera);
      const copy = document.createElement('canvas');
      copy.width = width;
      copy.height = height;
      const ink = copy.getContext('2d')!;
      ink.filter = 'blur(0.4px)';
      ink.drawImage(element, 0, 0);
      ink.filter = 'none';
      grain(ink, width, height);
      renderer.setPixelRatio(ratio);
      renderer.setSize(was.width / ratio, was.height / ratio, false);
      camera.aspect = aspect;
      camera.updateProjectionMatrix();
      draw();
      const blob = await new Promise<Blob | null>((done) => copy.toBlob(done, 'image/jpeg', 0.86));
      if (!blob) throw new Error('The picture could not be made.');
      return blob;
    },
    dispose: () => {
      cancelAnimationFrame(asked);
      if (built) release(built.group);
      for (const o of [...extras, ...room]) release(o);
      textures?.dispose();
      scene.environment?.dispose();
      controls.dispose();
      renderer.dispose();
    },
  };
}

/** Grain and fall-off of a small camera. */
function grain(ink: CanvasRenderingContext2D, width: number, height: number): void {
  const shot = ink.getImageData(0, 0, width, height);
  const random = seeded(31);
  for (let i = 0; i < shot.data.length; i += 4) {
    const p = i / 4;
    const [x, y] = [(p % width) / width - 0.5, Math.floor(p / width) / height - 0.5];
    const fall = 1 - 0.3 * (x * x + y * y);
    const n = (random() + random() + random() - 1.5) * 5;
    for (let k = 0; k < 3; k++) shot.data[i + k] = shot.data[i + k]! * fall + n;
  }
  ink.putImageData(shot, 0, 0);
}
