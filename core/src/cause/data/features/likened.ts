import type { Feature } from '../../types.js';
import { asked, PS } from './build.js';

const likened = (id: string, name: string, leak: number, leakReason: string, extra: Partial<Feature> = {}): Feature =>
  asked('measured', id, name, leak, leakReason, 'Read both halves of a bearing, and liken them to the wear that is predicted', 10, {
    needs: PS,
    likened: true,
    ...extra,
  });

/** Forms of wear that load and film predict, likened to what was read of a bearing (`WEAR_FORMS`). They share groups with what the same edges and halves say without them. */
export const LIKENED_FEATURES: readonly Feature[] = [
  likened('likened.combustion', 'A bearing worn as heavy combustion would wear it', 0.12, 'every bearing carries its firing load', {
    group: 'halves',
  }),
  likened('likened.over-speed', 'A bearing worn as over-speed would wear it', 0.08, 'what bears on the cap half looks like it', {
    group: 'halves',
  }),
  likened('likened.thin-film', 'A bearing worn as a film too thin all over would wear it', 0.15, 'any hot bearing comes near it', {
    group: 'halves',
  }),
  likened('likened.dry', 'A bearing worn as one that runs dry would wear', 0.12, 'wiped bearings end near it', { group: 'halves' }),
  likened('likened.bent-rod', 'A bearing worn as a bent rod would wear it', 0.03, 'other things bear on edges', { group: 'edges' }),
  likened('likened.twisted-rod', 'A bearing worn as a twisted rod would wear it', 0.03, 'other things bear on edges', { group: 'edges' }),
  likened('likened.bent-crank', 'A bearing worn as a bent crank would wear it', 0.05, 'wear all round looks like it', { group: 'one-arc' }),
  likened('likened.cap-aside', 'A bearing worn as a cap set aside would wear it', 0.03, 'other things bear at the joint', {
    group: 'joint',
  }),
];
