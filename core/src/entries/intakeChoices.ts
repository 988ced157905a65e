import type { IntakeField } from './kinds/intakeSet.js';

/** What may be picked in a field of the intake that is no free text: words by code. Several codes in one field are parted by commas. */
export const INTAKE_CHOICES = {
  complaint: {
    knock: 'Knock',
    seized: 'Seized',
    'low-pressure': 'Low oil pressure',
    smoke: 'Smoke',
    'loss-of-power': 'Loss of power',
    overheating: 'Overheating',
    'metal-in-oil': 'Metal in oil',
    'oil-level-rising': 'Oil level rising',
    'oil-level-falling': 'Oil level falling',
    leak: 'Leak',
    'no-start': 'Does not start',
    'noise-after-repair': 'Noise after repair',
    none: 'None, planned inspection',
  },
  onset: {
    sudden: 'Sudden',
    gradual: 'Gradual',
    'after-work': 'After work on the engine',
    'after-start-up': 'After start-up',
  },
  complaintPlace: {
    top: 'Top',
    bottom: 'Bottom',
    front: 'Front end',
    rear: 'Flywheel end',
    'one-cylinder': 'One cylinder',
    everywhere: 'Everywhere',
  },
  complaintWhen: {
    cold: 'Cold',
    hot: 'Hot',
    load: 'Under load',
    idle: 'At idle',
    always: 'Always',
  },
  smokeColour: { blue: 'Blue', white: 'White', black: 'Black' },
  familyExperience: {
    none: 'None: no pattern experience of this engine family is held',
    some: 'Some: seen before in this shop',
    held: 'Known: many seen in this shop',
  },
  afterFirstSign: {
    stopped: 'Stopped at once',
    'driven-on': 'Run on',
    restarted: 'Stopped, then restarted',
    unknown: 'Not known',
  },
  questionOwner: {
    private: 'Private client',
    warranty: 'Maker’s warranty',
    insurer: 'Insurer',
    own: 'Own engine',
    inspection: 'Planned inspection',
  },
} as const satisfies Partial<Record<IntakeField, Readonly<Record<string, string>>>>;

/** A field of the intake in which codes stand. */
export type IntakeChoice = keyof typeof INTAKE_CHOICES;
