import { standingGrade, type StationView } from '../case/views.js';

/** A feature that a wear map shows by itself; `told` where the same picture has more than one reading. */
export interface MarkFeature {
  readonly feature: string;
  readonly words: string;
  readonly reliability: 'certain' | 'told';
}

/** What a wear map shows by itself, without a named pattern. Shares are percent of the seen face. */
export function featuresOfMarks(s: StationView): MarkFeature[] {
  const w = s.summary;
  if (!w || !s.charted) return [];
  const found: MarkFeature[] = [];
  const named = s.patterns.some((p) => p.value.present);
  const grade = standingGrade(s) ?? 0;
  const pct = (v: number): string => `${v.toFixed(1)} %`;
  const sure = (feature: string, words: string): void => void found.push({ feature, words, reliability: 'certain' });
  /** Told by a map alone; where the builder has named the pattern, the name stands and this is not asked. */
  const likely = (feature: string, words: string): void => {
    if (!named) found.push({ feature, words, reliability: 'told' });
  };
  const felt = w.lines.probe + w.lines.nail + w.lines.through;
  const { front, rear } = w.edgeShare;
  if (s.station.part === 'shell') {
    if (w.percent.embedded > 0.1) sure('seen.embedded', `embedded on ${pct(w.percent.embedded)}`);
    if (w.percent.heat > 3) sure('seen.heat-shell', `heat on ${pct(w.percent.heat)}`);
    if (felt >= 3) sure('seen.scoring', `${felt} lines that can be felt`);
    if (w.percent.lining > 1 && Math.max(front, rear) > 0.6) sure('seen.edge-wear', 'lining bare along one edge');
    else if (w.percent.lining > 2 && Math.min(front, rear) > 0.35) likely('seen.both-edges', 'bare along both edges');
    else if (w.percent.lining > 5 && grade >= 2) likely('seen.wiping', `lining bare on ${pct(w.percent.lining)}`);
    if (w.percent.steel + w.percent.missing > 15 && grade >= 4)
      likely('seen.dry-seizure', `down to its back on ${pct(w.percent.steel + w.percent.missing)}`);
  }
  if (s.station.part === 'journal') {
    if (w.percent.heat > 3) sure('seen.journal-heat', `heat tint on ${pct(w.percent.heat)}`);
    if (w.percent.transfer > 0.3) sure('seen.journal-transfer', `transfer on ${pct(w.percent.transfer)}`);
    if (felt >= 2) sure('seen.journal-scored', `${felt} lines that can be felt`);
  }
  if (s.station.part === 'bore') {
    if (w.percent.scuffed + w.percent.transfer > 3)
      sure('seen.bore-scuff-band', `scuffed on ${pct(w.percent.scuffed + w.percent.transfer)}`);
    if (w.percent.heat > 3) likely('seen.bore-heat', `heat on ${pct(w.percent.heat)}`);
    if (felt >= 3) sure('seen.bore-scoring', `${felt} lines that can be felt`);
  }
  if (s.station.part === 'skirt' && w.percent.scuffed + w.percent.transfer > 5 && s.station.side === 'thrust')
    likely('seen.thrust-scuff', `scuffed on ${pct(w.percent.scuffed + w.percent.transfer)}`);
  if (s.station.part === 'thrust' && w.percent.lining + w.percent.steel + w.percent.transfer > 10 && grade >= 2)
    likely('seen.thrust-wiped', `worn on ${pct(w.percent.lining + w.percent.steel + w.percent.transfer)}`);
  if (s.station.part === 'crown' && w.percent.missing + w.percent.heat > 5 && grade >= 3)
    likely('seen.crown-melted', `metal gone on ${pct(w.percent.missing)}`);
  if (w.percent.rust > 0.3) sure('seen.rust', `rust on ${pct(w.percent.rust)}`);
  return found;
}
