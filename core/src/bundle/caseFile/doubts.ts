import { CAUSES } from '../../cause/data/causes.js';
import { feature } from '../../cause/data/features.js';
import { PATTERNS, pattern } from '../../damage/patterns.js';
import type { EngineLayout } from '../../engine/layout.js';
import { isNamedBy, PART_NAMES, stationsOf, type Station } from '../../engine/stations.js';
import { applies, engineTags } from '../../engine/tags.js';
import { INTAKE_CHOICES } from '../../entries/intakeChoices.js';
import { LIMIT_QUANTITIES } from '../../measure/specSheet.js';
import { stripPlan } from '../../strip/plan.js';
import { stationsOfFinding } from './findings.js';
import type { CaseFile } from './format.js';

/** Something in a case file that can be read and is probably not what was meant. It was taken as written. */
export interface CaseFileDoubt {
  /** Where in the file, as `findings.3.patterns`. */
  readonly field: string;
  /** What does not fit, what became of it, and what may stand there. */
  readonly sentence: string;
}

const list = (words: readonly string[], most = 12): string =>
  words.length <= most ? words.join(', ') : `${words.slice(0, most).join(', ')} and ${words.length - most} more`;
const partWords = (ids: readonly string[]): string => ids.map((p) => PART_NAMES[p as keyof typeof PART_NAMES].toLowerCase()).join(', ');

/** What version 1 of the format lets pass although it cannot be meant so: refusing it would turn away files that were read before. Empty for a file without a slip. */
export function caseFileDoubts(file: CaseFile, layout: EngineLayout): CaseFileDoubt[] {
  const stations = stationsOf(layout);
  return [
    ...intakeDoubts(file),
    ...stateDoubts(file, stations),
    ...patternDoubts(file, stations),
    ...featureDoubts(file, layout),
    ...limitDoubts(file),
    ...capDoubts(file, layout),
  ];
}

/** Codes of the fields that are weighed; who owns the question is free text in a case file. */
function intakeDoubts(file: CaseFile): CaseFileDoubt[] {
  const { questionOwner: _free, ...coded } = INTAKE_CHOICES;
  const answers: Readonly<Record<string, readonly string[]>> = {
    ...Object.fromEntries(Object.entries(coded).map(([field, words]) => [field, Object.keys(words)])),
    firstImpression: ['none-yet', ...CAUSES.map((c) => c.id)],
  };
  return Object.entries(file.intake ?? {}).flatMap(([field, value]) => {
    const known = answers[field];
    if (!known) return [];
    const codes = (Array.isArray(value) ? value : String(value).split(',')).filter((c) => c !== '');
    return codes
      .filter((code) => !known.includes(code))
      .map((code) => ({
        field: `intake.${field}`,
        sentence: `"${code}" is none of the answers of ${field}; it is kept as words and weighs nothing. What may stand there: ${list(known, 20)}.`,
      }));
  });
}

function stateDoubts(file: CaseFile, stations: readonly Station[]): CaseFileDoubt[] {
  return Object.keys(file.states ?? {})
    .filter((glob) => !stations.some((s) => isNamedBy(glob, s)))
    .map((glob) => ({
      field: `states.${glob}`,
      sentence: `"${glob}" matches no place of this engine, so nothing was set; run "true-ledger stations ${file.engine.template}" for the list.`,
    }));
}

/** Patterns of shells named at a bearing as a whole are the commonest slip: they land on the rod. */
function patternDoubts(file: CaseFile, stations: readonly Station[]): CaseFileDoubt[] {
  return (file.findings ?? []).flatMap((f, i) =>
    (['patterns', 'absent'] as const).flatMap((said) =>
      (f[said] ?? []).flatMap((id): CaseFileDoubt[] => {
        const record = pattern(id);
        const place = stations.find((s) => s.id === stationsOfFinding(f)[0]);
        if (!record || !place || record.parts.includes(place.part)) return [];
        const halved = !f.half && record.parts.includes('shell') && stations.some((s) => s.id === `${f.station}.shell.upper`);
        const others = PATTERNS.filter((p) => p.parts.includes(place.part)).map((p) => p.id);
        return [
          {
            field: `findings.${i}.${said}`,
            sentence: halved
              ? `"${id}" shows on shell halves, and ${f.station} without "half" is the part itself. It was taken there as written; add "half": "upper", "lower" or "both".`
              : `"${id}" shows on ${partWords(record.parts)}, and ${place.id} is one of the ${partWords([place.part])}. It was taken there as written. What shows there: ${list(others)}.`,
          },
        ];
      }),
    ),
  );
}

function featureDoubts(file: CaseFile, layout: EngineLayout): CaseFileDoubt[] {
  const tags = engineTags(layout);
  const named = new Map(
    (file.findings ?? []).flatMap((f) =>
      (f.patterns ?? []).flatMap((id) => {
        const shows = pattern(id)?.feature;
        return shows ? [[shows, `${f.station}: ${id}`] as const] : [];
      }),
    ),
  );
  const said = [
    ...(file.evidence ?? []).map((e, i) => ({ id: e.feature, present: e.present, field: `evidence.${i}` })),
    ...(file.history ?? []).flatMap((h, i) => (h.feature ? [{ id: h.feature, present: true, field: `history.${i}.feature` }] : [])),
  ];
  return said.flatMap(({ id, present, field }): CaseFileDoubt[] => {
    const record = feature(id);
    if (!record) return [];
    if (!applies(record.needs, tags))
      return [
        {
          field,
          sentence: `"${id}" is nothing this engine can have (it needs ${list(record.needs ?? [])}); it was kept and weighs nothing.`,
        },
      ];
    const finding = named.get(id);
    return !present && finding !== undefined
      ? [
          {
            field,
            sentence: `"${id}" is given as not there, and a finding shows it (${finding}). The finding stands on the record too; keep the one that was seen.`,
          },
        ]
      : [];
  });
}

function limitDoubts(file: CaseFile): CaseFileDoubt[] {
  const known = LIMIT_QUANTITIES.map((q) => q.id);
  return (file.limits ?? []).flatMap((l, i) =>
    known.includes(l.quantity)
      ? []
      : [
          {
            field: `limits.${i}.quantity`,
            sentence: `"${l.quantity}" is no quantity a limit is held against; it judges nothing. What may stand there: ${list(known)}.`,
          },
        ],
  );
}

function capDoubts(file: CaseFile, layout: EngineLayout): CaseFileDoubt[] {
  const known = stripPlan(layout).steps.flatMap((s) => s.cap ?? []);
  return (file.strip?.caps ?? []).flatMap((c, i) =>
    known.includes(c.cap)
      ? []
      : [
          {
            field: `strip.caps.${i}.cap`,
            sentence: `"${c.cap}" is no cap of this engine; it was kept and belongs to no step. What may stand there: ${list(known, 20)}.`,
          },
        ],
  );
}
