import type { Station } from '../engine/stations.js';
import { standingGrade, type StationView } from './views.js';
import { decidingObservation, patternsFor, type DamagePattern } from '../damage/patterns.js';
import { WEAR_CLASSES, WEAR_CLASS_INFO, type WearClass } from '../damage/classes.js';

interface PatternMatch {
  readonly pattern: DamagePattern;
  /** 0–1, the share of the fit among all patterns of the part. */
  readonly fit: number;
  readonly why: readonly string[];
}

export interface MatchResult {
  readonly ranked: readonly PatternMatch[];
  /** What decides between the two that fit best. */
  readonly decides: { readonly a: string; readonly b: string; readonly observation: string } | null;
}

/** How loud one point of log fit is; chosen so that a plain signature leads by a factor of a few, never by certainty. */
const SHARP = 1.6;

/** The half that carries the load of combustion: of a big end the upper one, in the rod; of a main the lower one, in the cap. */
const loadedHalf = (station: Station): 'upper' | 'lower' => (station.carries === 'rod' ? 'upper' : 'lower');

/** Patterns of this part ranked by how well their signature fits what is on the surface: classes, place, lines, specks, network, half. Null while nothing is drawn or read. */
export function matchFinding(s: StationView): MatchResult | null {
  const w = s.summary;
  if (!w || !s.charted) return null;
  const found = WEAR_CLASSES.filter((c) => c !== 'sound' && w.percent[c] > 0.3).sort((a, b) => w.percent[b] - w.percent[a]);
  const felt = w.lines.probe + w.lines.nail + w.lines.through + w.lines.hair;
  const crazed = Math.max(0, ...s.reads.map((r) => r.value.crazedPercent));
  const specks = Math.max(0, ...s.reads.map((r) => r.value.specks));
  const { front, rear } = w.edgeShare;
  const place = (): readonly string[] => {
    const where: string[] = [];
    if (Math.max(front, rear) > 0.6) where.push('one edge');
    if (Math.min(front, rear) > 0.33) where.push('both edges');
    if (front + rear < 0.15) where.push('centre band');
    if (w.arcShare < 0.2) where.push('one spot');
    if (w.arcShare > 0.75) where.push('all round');
    if (w.arcShare >= 0.2 && w.arcShare <= 0.75) where.push('loaded arc');
    if (s.station.part === 'bore' && front > 0.5) where.push('top');
    return where;
  };
  const at = place();
  const { half } = s.station;
  const grade = standingGrade(s) ?? 0;
  const scored = patternsFor(s.station.part).flatMap((p) => {
    const sign = p.signature;
    if (!sign) return [];
    const why: string[] = [];
    let score = 0;
    const lead = found[0];
    const name = (c: WearClass): string => WEAR_CLASS_INFO[c].name.toLowerCase();
    if (lead && sign.classes[0] === lead) {
      score += 1.6;
      why.push(`${name(lead)} leads`);
    } else if (lead && sign.classes.includes(lead)) {
      score += 0.8;
      why.push(`${name(lead)} belongs to it`);
    } else if (lead) score -= 1.2;
    for (const c of found.slice(1, 3)) if (sign.classes.includes(c)) score += 0.3;
    for (const c of sign.not ?? [])
      if (w.percent[c] > 2) {
        score -= 1;
        why.push(`${name(c)} speaks against it`);
      }
    if (at.includes(sign.where)) {
      score += 1;
      why.push(`it lies on ${sign.where}`);
    } else if (sign.where !== 'anywhere' && at.length > 0) score -= 0.5;
    if (sign.lines === 'many') {
      score += felt >= 3 ? 1 : -0.8;
      if (felt >= 3) why.push(`${felt} lines`);
    } else if (sign.lines === 'none' && felt >= 3) {
      score -= 0.8;
      why.push(`${felt} lines speak against it`);
    }
    if (sign.specks) score += specks > 3 || w.percent.embedded > 0.1 ? 0.8 : -0.3;
    if (sign.network) {
      score += crazed > 2 ? 1.2 : s.reads.length > 0 ? -0.6 : 0;
      if (crazed > 2) why.push(`a network of cracks on ${crazed.toFixed(0)} %`);
    }
    if (half && sign.half === 'loaded') score += half === loadedHalf(s.station) ? 0.3 : -0.3;
    const harmless = p.facts.includes('harmless');
    if (harmless) score += grade >= 2 ? -2 : 0.6;
    return [{ pattern: p, score, why }];
  });
  if (scored.length === 0 || found.length === 0) return null;
  const total = scored.reduce((sum, x) => sum + Math.exp(SHARP * x.score), 0);
  const ranked = scored
    .map(({ pattern, score, why }) => ({ pattern, fit: Math.exp(SHARP * score) / total, why }))
    .sort((a, b) => b.fit - a.fit);
  const [a, b] = ranked;
  const observation = a && b ? decidingObservation(a.pattern.id, b.pattern.id) : null;
  return {
    ranked,
    decides: a && b ? { a: a.pattern.id, b: b.pattern.id, observation: observation ?? `${a.pattern.ask} ${b.pattern.ask}` } : null,
  };
}
