import type { SpecimenForm } from '@true-ledger/core/specimen';
import type { SurfaceTextures } from '../textures.js';
import { halfRound } from './halfRound.js';
import { thrust } from './thrust.js';
import { journal } from './journal.js';
import { piston } from './piston.js';
import { ring } from './ring.js';
import { lobe } from './lobe.js';
import { follower } from './follower.js';
import { gear } from './gear.js';
import { tray } from './tray.js';
import { workbench, type BuiltPart, type Workbench } from './workbench.js';

const BUILDERS: Readonly<Record<SpecimenForm, (bench: Workbench) => BuiltPart>> = {
  shell: halfRound,
  race: halfRound,
  bore: halfRound,
  thrust,
  journal,
  piston,
  crown: piston,
  ring,
  lobe,
  follower,
  gear,
  tray,
};

/** The part of this form with its face as the textures say. */
export const buildPart = (form: SpecimenForm, textures: SurfaceTextures): BuiltPart => BUILDERS[form](workbench(form, textures));
