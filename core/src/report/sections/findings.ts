import { type Grade, gradeText, WEAR_CLASS_INFO, WEAR_CLASSES } from '../../damage/classes.js';
import { sightName } from '../../damage/sights.js';
import { standingGrade, type CaseView, type StationView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

function findingWords(s: StationView): string {
  const grade = standingGrade(s);
  const parts: string[] = [];
  if (grade !== null) parts.push(`${gradeText(grade)}${s.grade ? '' : ' (proposed)'}`);
  const present = s.patterns.filter((p) => p.value.present).map((p) => sightName(p.value.pattern).toLowerCase());
  if (present.length > 0) parts.push(present.join(', '));
  if (s.proposal) parts.push(s.proposal.reason.split(' → ')[0] ?? '');
  const absent = s.patterns.filter((p) => !p.value.present).map((p) => sightName(p.value.pattern).toLowerCase());
  if (absent.length > 0) parts.push(`looked for, not there: ${absent.join(', ')}`);
  if (s.grade?.value.reason) parts.push(`builder’s reason: ${s.grade.value.reason}`);
  return parts.join('; ');
}

/** A picture of a place, numbered, with the entries it is drawn from. */
export function pictureBlock(
  s: StationView,
  { sha256, standIn }: Pick<StationView['photos'][number]['value'], 'sha256' | 'standIn'>,
  number: number,
): Extract<ReportBlock, { kind: 'photo' }> {
  return {
    kind: 'photo',
    number,
    sha256,
    station: s.station.id,
    caption: s.station.name,
    standIn,
    stamp: `${s.corners[sha256]?.version.seq ?? 0}.${s.marks.reduce((n, m) => Math.max(n, m.version.seq), 0)}.${s.reads.at(-1)?.version.seq ?? 0}`,
  };
}

/** A sight whose place is open, or that somebody told of, in one line. */
function openSightWords(view: CaseView, x: CaseView['sights'][number]['value']): string {
  const names = x.among.map((id) => view.byId.get(id)?.station.name ?? id).join(', ');
  const where = x.of === null ? names : `${x.of} of: ${names}`;
  const grade = x.grade === null ? '' : `, ${gradeText(x.grade as Grade)}`;
  return `${sightName(x.sight)}${x.present ? '' : ', looked for and not there'}${grade}; ${where} (${x.reliability})${x.words ? `: “${x.words}”` : ''}`;
}

/** Grade up to which a finding without a picture is told in one line. */
const WITNESS = 1;

/** Findings by part, worst first, with the pictures that are in the account. */
export function findings(view: CaseView, numbering: ReadonlyMap<string, number>): ReportSection {
  const blocks: ReportBlock[] = [];
  const hurt = view.stations.filter((s) => s.state === 'findings').sort((a, b) => (standingGrade(b) ?? 0) - (standingGrade(a) ?? 0));
  if (hurt.length === 0) blocks.push({ kind: 'text', key: 'findings.none', text: 'No findings were recorded.' });
  const slight = hurt.filter((s) => (standingGrade(s) ?? 9) <= WITNESS && s.photos.length === 0 && s.remarks.length === 0);
  for (const s of hurt.filter((x) => !slight.includes(x))) {
    blocks.push(
      { kind: 'text', text: s.station.name, strong: true },
      { kind: 'text', key: `findings.${s.station.id}`, text: findingWords(s) || 'Marked as a finding, not graded.' },
    );
    for (const r of s.remarks) blocks.push({ kind: 'text', text: `Remark by ${r.version.author.name}: ${r.value.text}` });
    for (const p of [...s.photos].sort((a, b) => (numbering.get(a.value.sha256) ?? 0) - (numbering.get(b.value.sha256) ?? 0))) {
      const number = numbering.get(p.value.sha256);
      if (number === undefined) continue;
      blocks.push(pictureBlock(s, p.value, number));
    }
    if (s.wear && s.station.surface && s.charted) {
      const shares = WEAR_CLASSES.filter((c) => c !== 'sound' && (s.summary?.percent[c] ?? 0) >= 0.1).map(
        (c) => `${WEAR_CLASS_INFO[c].name.toLowerCase()} ${(s.summary?.percent[c] ?? 0).toFixed(1)} %`,
      );
      blocks.push({
        kind: 'wear',
        station: s.station.id,
        map: s.wear,
        frame: s.station.surface,
        caption: `${s.station.name}, developed: ${shares.join(', ') || 'lines only'}; ${s.station.surface.vFrom} below`,
      });
    }
  }
  if (slight.length > 0)
    blocks.push(
      { kind: 'text', text: 'Slight, and not pictured', strong: true },
      { kind: 'table', head: ['Place', 'Found'], rows: slight.map((s) => [s.station.name, findingWords(s)]) },
    );
  if (view.sights.length > 0)
    blocks.push(
      { kind: 'text', text: 'Noted without a certain place, or told', strong: true },
      { kind: 'list', items: view.sights.map(({ value: x }) => openSightWords(view, x)) },
    );
  const sound = view.stations.filter((s) => s.state === 'sound');
  if (sound.length > 0)
    blocks.push(
      { kind: 'text', text: 'Examined, nothing found', strong: true },
      { kind: 'text', key: 'findings.sound', text: `${sound.map((s) => s.station.name).join(', ')}.` },
    );
  return { id: 'findings', heading: 'Findings', blocks };
}
