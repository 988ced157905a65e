/** Classes a patch of surface can show; the order is the painting order of the wear map rasters. */
export const WEAR_CLASSES = [
  'sound',
  'polished',
  'lining',
  'steel',
  'heat',
  'rust',
  'deposit',
  'embedded',
  'scuffed',
  'transfer',
  'missing',
] as const;
/** A class of surface damage; every cell of a wear map holds shares of them that sum to one. */
export type WearClass = (typeof WEAR_CLASSES)[number];

export interface WearClassInfo {
  readonly name: string;
  /** Key that picks the class inside the brush. */
  readonly key: string;
  /** Layer colour, also readable in grey. */
  readonly colour: string;
  readonly hint: string;
}

/** Name, colour, key and hint of each class of surface damage. */
export const WEAR_CLASS_INFO: Readonly<Record<WearClass, WearClassInfo>> = {
  sound: { name: 'Sound', key: 's', colour: '#b9c2c6', hint: 'looked at, nothing found' },
  polished: { name: 'Polished', key: 'o', colour: '#dcc39a', hint: 'bright band, nothing lost' },
  lining: { name: 'Lining exposed', key: 'l', colour: '#c98b4a', hint: 'copper colour on a trimetal shell' },
  steel: { name: 'Steel', key: 't', colour: '#6f7c86', hint: 'backing bare' },
  heat: { name: 'Heat', key: 'h', colour: '#2b2430', hint: 'brown, blue or black by heat' },
  rust: { name: 'Rust', key: 'r', colour: '#9e4a26', hint: 'brown with pits, not copper' },
  deposit: { name: 'Deposit', key: 'd', colour: '#4c5340', hint: 'lacquer, carbon, sludge' },
  embedded: { name: 'Embedded', key: 'e', colour: '#3f5c7a', hint: 'specks pressed in' },
  scuffed: { name: 'Scuffed', key: 'c', colour: '#8a5a44', hint: 'torn or smeared metal' },
  transfer: { name: 'Transfer', key: 'f', colour: '#cfd6da', hint: 'metal of the other part smeared on' },
  missing: { name: 'Missing', key: 'i', colour: '#ffffff', hint: 'material gone' },
};

/** The five grades, from sound to destroyed. */
export const GRADES = [0, 1, 2, 3, 4] as const;
/** 0 sound, 1 witness, 2 worn, 3 through, 4 destroyed. */
export type Grade = (typeof GRADES)[number];

/** Word, colour and meaning of each grade; definitions in `docs/methods/grades.md`. */
export const GRADE_INFO: Readonly<Record<Grade, { readonly word: string; readonly colour: string; readonly meaning: string }>> = {
  0: { word: 'Sound', colour: '#B9C2C6', meaning: 'as new or properly bedded' },
  1: { word: 'Witness', colour: '#DCC39A', meaning: 'contact seen, nothing lost that a gauge finds' },
  2: { word: 'Worn', colour: '#C98B4A', meaning: 'loss you can see or measure, inside limits' },
  3: { word: 'Through', colour: '#9E4A26', meaning: 'protective layer gone or limit passed' },
  4: { word: 'Lost', colour: '#2B2430', meaning: 'cannot serve or be measured' },
};

/** `3 Through` – a grade as it is always shown: number and word. */
export function gradeText(grade: Grade): string {
  return `${grade} ${GRADE_INFO[grade].word}`;
}
