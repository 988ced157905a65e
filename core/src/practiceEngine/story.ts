import type { CaseFile } from '../bundle/caseFile/format.js';
import { feature } from '../cause/data/features.js';
import { seeded } from '../kit/seeded.js';
import type { HiddenEngine } from './hidden.js';

/** What the owner says of himself when he brings the engine: how many things beyond the complaint. */
const SAID = 4;

/** Complaint, and the features that make one complain of it. */
const COMPLAINTS: ReadonlyArray<readonly [code: string, shows: readonly string[]]> = [
  ['seized', ['measured.turning-locked', 'seen.dry-seizure']],
  ['low-pressure', ['told.pressure-lost', 'told.pressure-low-hot', 'measured.pressure-low']],
  ['overheating', ['told.overheated']],
  ['oil-level-rising', ['fluid.level-high']],
  ['knock', ['seen.wiping', 'seen.spun', 'seen.bolt-broken', 'seen.rod-broken', 'told.knock-under-load', 'seen.lining-fatigue']],
  [
    'loss-of-power',
    [
      'measured.compression-one-low',
      'measured.compression-all-low',
      'measured.compression-adjacent-low',
      'told.one-cylinder-down',
      'seen.full-round-scuff',
    ],
  ],
  ['metal-in-oil', ['debris.copper', 'debris.aluminium', 'debris.steel', 'fluid.glitter']],
  ['smoke', ['told.uses-oil', 'seen.rings-stuck', 'measured.wet-rise']],
];

/** The owner's story: what the engine came in for, and what he says unasked, partly wrong. The same for the same engine. */
export function storyOf(hidden: HiddenEngine): Required<Pick<CaseFile, 'intake' | 'history'>> {
  const random = seeded(hidden.seed * 101 + 17);
  const so = (id: string): boolean => hidden.features.get(id) === true;
  const complaints = COMPLAINTS.filter(([, shows]) => shows.some(so)).map(([code]) => code);
  // He speaks of what he believes was so; of what was not, only to say that he is not to blame.
  const told = [...hidden.believed]
    .filter(([id, yes]) => yes && feature(id)!.kind === 'told')
    .map(([id]) => ({ id, at: random() }))
    .sort((a, b) => a.at - b.at)
    .slice(0, SAID);
  const onset = hidden.believed.get('told.after-start-up') ? 'after-start-up' : random() < 0.5 ? 'sudden' : 'gradual';
  return {
    intake: {
      complaint: complaints.slice(0, 2).join(',') || 'none',
      complaintWords:
        told.length > 0
          ? `He says: ${told.map(({ id }) => feature(id)!.name.toLowerCase()).join('; ')}.`
          : 'Nothing in particular; he wants to know how it stands.',
      onset,
      afterFirstSign: hidden.believed.get('told.ran-on') ? 'driven-on' : 'stopped',
      questionOwner: hidden.level.level === 10 ? 'inspection' : 'private',
      question: 'What failed, why, and what can be saved?',
    },
    history: told.map(({ id }) => ({ text: feature(id)!.name, feature: id, reliability: 'told' as const, date: null })),
  };
}
