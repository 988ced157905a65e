import { firstStartProcedure, type StartStep } from '../cause/firstStart.js';
import type { CaseView } from '../case/views.js';
import type { EntryBodies } from '../entries/entries.js';
import { memo } from '../kit/memo.js';
import type { Sourced } from '../ledger/state.js';
import { specOfPlace } from '../measured/caseMeasure.js';
import { placeOf } from '../measure/program/program.js';
import { assemblyProgram, bagKind, FIRST_START, type AssemblyStep } from '../strip/assembly/program.js';
import type { Proof } from '../strip/assembly/proofs.js';
import { parseStages, type TorqueStage } from '../strip/assembly/stages.js';
import type { FastenerBag } from '../strip/steps/step.js';
import { REUSE_WORDS } from '../strip/steps/step.js';
import { formatQuantity } from '../units/quantity.js';
import { OPERATION_NAMES, type Operation, type StandingDisposition } from '../workshop/operations.js';
import { standingDispositions } from './dispositions.js';

/** Limits of a proof in its canonical unit, with whose they are; null on both sides: none is known. */
interface ProofLimit {
  readonly lower: number | null;
  readonly upper: number | null;
  readonly source: string;
}

/** How a proof stands: open, within its limits, outside them, read without a limit to hold it to, or refused by eye. */
type ProofState = 'open' | 'within' | 'outside' | 'no limit' | 'no';

export interface ProofStanding {
  readonly proof: Proof;
  readonly limit: ProofLimit;
  readonly held: Sourced<EntryBodies['proof-set']> | null;
  readonly state: ProofState;
}

/** A part that goes in: the one that came out, back where it was, or another. */
interface PartIn {
  readonly station: string;
  readonly name: string;
  readonly how: 'back' | 'worked' | 'new' | 'open';
  readonly words: string;
}

/** Fasteners of a step with how they are tightened. */
export interface FastenersIn {
  readonly bag: FastenerBag;
  /** Counted at the strip; null where nobody did. */
  readonly counted: number | null;
  readonly words: string;
  readonly kind: string;
  /** Null while nobody wrote them. */
  readonly stages: readonly TorqueStage[] | null;
  readonly source: string;
}

/** A picture taken when the step came apart. */
interface PictureOut {
  readonly station: string;
  readonly sha256: string;
  readonly what: string;
  readonly standIn: boolean;
}

export interface AssemblyStanding {
  readonly step: AssemblyStep;
  readonly done: Sourced<EntryBodies['assembly-set']> | null;
  readonly parts: readonly PartIn[];
  readonly fasteners: readonly FastenersIn[];
  readonly proofs: readonly ProofStanding[];
  readonly pictures: readonly PictureOut[];
  /** Number, direction and joint of the cap as they were found; null where nobody checked. */
  readonly cap: string | null;
  /** What the first start asks, in order. */
  readonly start: readonly StartStep[];
}

/** The assembly book of a case. */
export interface AssemblyBook {
  readonly steps: readonly AssemblyStanding[];
  /** First step that is not done; null when all are. */
  readonly next: AssemblyStanding | null;
  readonly done: number;
}

/** Most pictures a step shows: the first of each place. */
const PICTURES = 4;

/** The engine's strip backwards, with what is known of each part, fastener and proof as the case stands. */
export const assemblyBook: (view: CaseView) => AssemblyBook = memo('assembly of a case', (view: CaseView): AssemblyBook => {
  const dispositions = new Map(standingDispositions(view).map((d) => [d.station, d]));
  const confirmed = view.decisions.filter((d) => d.value.decision === 'confirmed').map((d) => d.value.cause);
  const steps = assemblyProgram(view.layout, view.stepOrder).map((step): AssemblyStanding => {
    const said = view.assembly.get(step.id);
    const cap = step.cap ? view.caps.get(step.cap)?.value : undefined;
    return {
      step,
      done: said?.value.state === 'done' ? said : null,
      parts: step.stations.flatMap((id) => partIn(view, id, dispositions.get(id))),
      fasteners: step.bags.map((bag) => fastenersIn(view, bag)),
      proofs: step.proofs.map((proof) => proofStanding(view, proof)),
      pictures: picturesOf(view, step),
      cap: cap
        ? `${cap.number || 'no number'}, ${cap.agrees ? 'as the rod or block is marked' : 'not as the rod or block is marked'}, joint ${cap.joint === 'step' ? 'with a step' : 'imperceptible'}${cap.note ? `; ${cap.note}` : ''}`
        : null,
      start: step.id === FIRST_START ? firstStartProcedure(view.layout, confirmed) : [],
    };
  });
  return { steps, next: steps.find((s) => !s.done) ?? null, done: steps.filter((s) => s.done).length };
});

const NEW: ReadonlySet<Operation> = new Set(['replace', 'scrap', 'keep']);
const UNCHANGED: ReadonlySet<Operation> = new Set(['reuse', 'clean']);

function partIn(view: CaseView, id: string, d: StandingDisposition | undefined): PartIn[] {
  const place = view.byId.get(id);
  // Debris is no part, and what was never there does not go back.
  if (!place || !d || place.state === 'not-present' || place.station.part === 'debris') return [];
  const { name } = place.station;
  const more = [d.size, d.reason].filter(Boolean).join(', ');
  const because = more ? `: ${more}` : '';
  if (!d.confirmed)
    return [
      {
        station: id,
        name,
        how: 'open',
        words:
          place.state === 'not-examined'
            ? 'not examined, not decided'
            : `not decided; proposed: ${OPERATION_NAMES[d.operation].toLowerCase()}${because}`,
      },
    ];
  if (NEW.has(d.operation)) return [{ station: id, name, how: 'new', words: `new${because}` }];
  if (UNCHANGED.has(d.operation))
    return [{ station: id, name, how: 'back', words: `goes back where it was${d.operation === 'clean' ? ', cleaned' : ''}${because}` }];
  if (d.operation === 'check') return [{ station: id, name, how: 'open', words: `still to be checked${because}` }];
  return [
    { station: id, name, how: 'worked', words: `back from the work, measured: ${OPERATION_NAMES[d.operation].toLowerCase()}${because}` },
  ];
}

function fastenersIn(view: CaseView, bag: FastenerBag): FastenersIn {
  const kind = bagKind(bag.id);
  const torque = view.torques.get(kind)?.value;
  const stages = torque && torque.text !== '' ? parseStages(torque.text) : null;
  const counted = view.bags.get(bag.id)?.value.counted ?? null;
  const count = counted ?? bag.count;
  return {
    bag,
    counted,
    kind,
    words: `${count === null ? '' : `${count} × `}${bag.name}: ${bag.reuse === 'never' ? 'new, the old ones are not used again' : REUSE_WORDS[bag.reuse]}`,
    stages: stages?.ok ? stages.value : null,
    source: torque?.source ?? '',
  };
}

function proofStanding(view: CaseView, proof: Proof): ProofStanding {
  const limit = limitOf(view, proof);
  const said = view.proofs.get(proof.id);
  const held = said && said.value.text !== '' ? said : null;
  return { proof, limit, held, state: stateOf(proof, limit, held?.value ?? null) };
}

function stateOf(proof: Proof, { lower, upper }: ProofLimit, held: EntryBodies['proof-set'] | null): ProofState {
  if (!held) return 'open';
  if (proof.quantity === null) return held.text === 'yes' ? 'within' : 'no';
  const { value } = held;
  if (value === null) return 'open';
  if (lower === null && upper === null) return 'no limit';
  return (lower !== null && value < lower) || (upper !== null && value > upper) ? 'outside' : 'within';
}

/** The first limit among a proof's sources. */
function limitOf(view: CaseView, proof: Proof): ProofLimit {
  for (const s of proof.sources) {
    if ('limit' in s) {
      const own = view.limits?.value.limits.find((l) => l.quantity === s.limit);
      if (own && (own.lower !== null || own.upper !== null))
        return { lower: own.lower, upper: own.upper, source: view.limits?.value.sheet?.source ?? 'limit entered in this case' };
      continue;
    }
    const place = placeOf(view.layout, s.station, s.sheet);
    const spec = place ? specOfPlace(view, place) : null;
    const line = spec?.limits?.[s.line];
    if (spec && line && (line.lower !== undefined || line.upper !== undefined))
      return { lower: line.lower ?? null, upper: line.upper ?? null, source: spec.source };
  }
  return { lower: null, upper: null, source: '' };
}

function picturesOf(view: CaseView, step: AssemblyStep): PictureOut[] {
  const list = step.shots.flatMap(({ station, what }): PictureOut[] => {
    const photos = station === '' ? view.photos.filter((p) => p.value.shot === what) : (view.byId.get(station)?.photos ?? []);
    // The earliest shows it as it came apart; later ones may show it washed.
    const first = [...photos].sort((a, b) => a.version.seq - b.version.seq)[0]?.value;
    return first ? [{ station, sha256: first.sha256, what, standIn: first.standIn }] : [];
  });
  return [...new Map(list.map((p) => [p.sha256, p])).values()].slice(0, PICTURES);
}

/** Limits in words: `0.030 to 0.070 mm`, `at most 12.0 N·m`; what stands where none is known. */
export function limitWords({ proof, limit }: Pick<ProofStanding, 'proof' | 'limit'>): string {
  if (proof.quantity === null) return '';
  // A clearance is told to the micrometre.
  const say = (v: number): string => (proof.quantity === 'length' ? `${v.toFixed(3)} mm` : formatQuantity(v, proof.quantity!));
  if (limit.lower !== null && limit.upper !== null) return `${say(limit.lower).replace(/ \S+$/, '')} to ${say(limit.upper)}`;
  if (limit.lower !== null) return `at least ${say(limit.lower)}`;
  if (limit.upper !== null) return `at most ${say(limit.upper)}`;
  return 'No limit is known: its maker’s data tell.';
}

/** Proofs of a step that do not carry it: open, outside their limits or refused by eye. */
export function unproved(step: AssemblyStanding): readonly ProofStanding[] {
  return step.proofs.filter((p) => p.state !== 'within' && p.state !== 'no limit');
}
