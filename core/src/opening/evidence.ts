import type { EngineLayout } from '../engine/layout.js';
import type { LimitBand } from '../units/gauge.js';
import { checksFor, fieldKeys, TURN_POSITIONS, type OpeningCheck } from './checks.js';
import type { CheckAnswer } from './record.js';
import {
  againstLimit,
  compressionResult,
  THUMB,
  turningResult,
  type CompressionResult,
  type Limited,
  type TurningResult,
} from './results.js';

/** Answers by `check:field`. */
export type Answers = ReadonlyMap<string, CheckAnswer>;

/** Limit of a quantity with its source; null where none is known. */
export interface LimitSource {
  /** Limit of a quantity with its source, when a spec sheet gives one. */
  (quantity: string): { readonly band: LimitBand; readonly source: string } | null;
}

/** What the checks before opening come to. */
export interface OpeningResults {
  readonly compression: CompressionResult | null;
  readonly turning: TurningResult | null;
  readonly hotIdle: Limited | null;
  readonly endFloat: Limited | null;
  readonly nosePlay: Limited | null;
  /** Loss per cylinder, percent; null where not read. */
  readonly leak: ReadonlyArray<number | null>;
}

const value = (answers: Answers, check: string, field: string): number | null => answers.get(`${check}:${field}`)?.value ?? null;

const perCylinder = (layout: EngineLayout, answers: Answers, check: string, field: string): Array<number | null> =>
  Array.from({ length: layout.cylinders }, (_, i) => value(answers, check, `${field}.${i + 1}`));

const perTurn = (answers: Answers, field: string): Array<number | null> =>
  Array.from({ length: TURN_POSITIONS }, (_, i) => value(answers, 'turning', `${field}.${i + 1}`));

/** Everything computed from the checks before opening. */
export function openingResults(layout: EngineLayout, answers: Answers, limits: LimitSource): OpeningResults {
  const judged = (check: string, field: string, quantity: string, u: number, thumb: LimitBand, unit: string): Limited | null => {
    const v = value(answers, check, field);
    return v === null ? null : againstLimit(v, u, limits(quantity), thumb, unit);
  };
  return {
    compression: compressionResult(
      layout,
      perCylinder(layout, answers, 'compression', 'dry'),
      perCylinder(layout, answers, 'compression', 'wet'),
      limits('compression')?.band.lower,
    ),
    turning: turningResult(perTurn(answers, 'ahead'), perTurn(answers, 'back')),
    hotIdle: judged('oil-pressure', 'hot-idle', 'oil-pressure.hot-idle', THUMB.pressureU, { lower: THUMB.hotIdleBar }, 'bar'),
    endFloat: judged('end-float', 'float', 'end-float', THUMB.indicatorU, { upper: THUMB.endFloatMm }, 'mm'),
    nosePlay: judged('end-float', 'play', 'nose-play', THUMB.indicatorU, { upper: THUMB.nosePlayMm }, 'mm'),
    leak: perCylinder(layout, answers, 'leak-down', 'loss'),
  };
}

/** A feature a check shows or denies. */
export interface OpeningFinding {
  readonly feature: string;
  readonly present: boolean;
  readonly words: string;
  /** `check:field` the finding rests on, so that its entry can be opened. */
  readonly from: string;
}

/**
 * Features that the checks before opening show, or show to be absent. An answered choice decides every feature among its options: what was looked
 * at and not chosen is evidence that it is not there. A field without an answer says nothing.
 */
export function openingFindings(layout: EngineLayout, answers: Answers, limits: LimitSource): OpeningFinding[] {
  const found: OpeningFinding[] = [];
  const say = (feature: string, present: boolean, words: string, from: string): void => {
    const held = found.findIndex((f) => f.feature === feature);
    if (held < 0) found.push({ feature, present, words, from });
    else if (present && !found[held]!.present) found[held] = { feature, present, words, from };
  };
  for (const check of checksFor(layout)) choices(check, layout, answers, say);
  const r = openingResults(layout, answers, limits);
  if (r.compression && answers.size > 0) {
    const c = r.compression;
    const read = perCylinder(layout, answers, 'compression', 'dry').filter((v) => v !== null).length;
    if (read >= Math.max(2, layout.cylinders * 0.75)) {
      say('measured.compression-one-low', c.low.length === 1, `compression: ${c.words}`, 'compression:dry.1');
      say('measured.compression-adjacent-low', c.adjacent !== null, `compression: ${c.words}`, 'compression:dry.1');
    }
    if (c.allLow) say('measured.compression-all-low', true, `compression: ${c.words}`, 'compression:dry.1');
    if (c.wetRise.length > 0)
      say(
        'measured.wet-rise',
        c.wetRise.some((w) => w.percent >= THUMB.wetRise * 100),
        `compression with oil: ${c.words}`,
        'compression:wet.1',
      );
  }
  if (r.turning) say('measured.turning-notchy', r.turning.notches.length > 0, `turning torque: ${r.turning.words}`, 'turning:ahead.1');
  const judged = (limited: Limited | null, feature: string, name: string, from: string): void => {
    if (limited && limited.verdict.word !== 'too close to call')
      say(feature, limited.verdict.word === 'outside', `${name}: ${limited.verdict.reason} (${limited.source})`, from);
  };
  judged(r.hotIdle, 'measured.pressure-low', 'oil pressure hot at idle', 'oil-pressure:hot-idle');
  judged(r.endFloat, 'measured.end-float-high', 'end float', 'end-float:float');
  judged(r.nosePlay, 'measured.nose-play', 'play at the nose', 'end-float:play');
  return found;
}

function choices(
  check: OpeningCheck,
  layout: EngineLayout,
  answers: Answers,
  say: (f: string, p: boolean, w: string, from: string) => void,
): void {
  for (const field of check.fields) {
    if (!field.options?.some((option) => option.feature)) continue;
    const keys = fieldKeys(field, layout);
    const answered = keys.filter((key) => (answers.get(`${check.id}:${key}`)?.chosen.length ?? 0) > 0).length;
    for (const key of keys) {
      const answer = answers.get(`${check.id}:${key}`);
      if (!answer || answer.chosen.length === 0) continue;
      for (const option of field.options) {
        if (!option.feature) continue;
        const present = field.options.some((x) => x.feature === option.feature && answer.chosen.includes(x.value));
        // One cylinder looked into clears only itself: absence needs most of them.
        if (!present && answered < keys.length * 0.75) continue;
        say(
          option.feature,
          present,
          `${check.name}, ${field.label.toLowerCase()}${key.includes('.') ? ` ${key.split('.')[1]}` : ''}: ${answer.text}`,
          `${check.id}:${key}`,
        );
      }
    }
  }
}
