import { runBlocks } from '../runBlocks.js';
import type { Diagnosis } from '../../diagnosis/diagnose.js';
import { cause } from '../../cause/data/causes.js';
import { rangeText } from '../../diagnosis/ending.js';
import { absenceWords } from '../../diagnosis/silences.js';
import { percentText } from '../../cause/percent.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { waterfall } from '../drawings.js';
import type { Detail } from '../../entries/account.js';

/** The differential: ranked causes, evidence both ways as a drawing and in words, alternatives, what stays unexplained. */
export function causes(view: CaseView, d: Diagnosis, detail: Detail): ReportSection {
  const blocks: ReportBlock[] = [
    { kind: 'text', key: 'causes.ending', text: `Ending: ${d.ending.kind}. ${d.ending.sentence}`, strong: true },
  ];
  const decided = new Map(view.decisions.map((x) => [x.value.cause, x.value]));
  blocks.push({
    kind: 'table',
    head: ['Cause', 'Probability', 'Word', 'Builder'],
    rows: d.causes.slice(0, 6).map((c) => {
      const own = decided.get(c.id);
      const place = c.places[0] && c.places[0].probability > 0.5 ? ` (${c.places[0].name})` : '';
      return [
        c.name + place,
        rangeText(c),
        c.range,
        own && own.decision !== 'open' ? `${own.decision}${own.reason ? `: ${own.reason}` : ''}` : '–',
      ];
    }),
    figures: [1],
  });
  const lead = d.causes[0];
  if (lead) blocks.push(waterfall(lead));
  if (lead && detail === 'full') {
    const side = (present: boolean): string[] =>
      lead.evidence
        .filter((e) => e.decibans > 0 === present)
        .slice(0, 8)
        .map(
          (e) =>
            `${e.name}${e.present ? '' : `: ${absenceWords(e)}`} (${Math.abs(e.decibans).toFixed(1)} decibans) – ${e.sources
              .map((s) => s.words)
              .slice(0, 3)
              .join('; ')}`,
        );
    blocks.push(
      { kind: 'text', text: `For ${lead.name.toLowerCase()}, against its nearest rival`, strong: true },
      { kind: 'list', items: side(true).length > 0 ? side(true) : ['Nothing.'] },
    );
    blocks.push(
      { kind: 'text', text: 'Against it', strong: true },
      { kind: 'list', items: side(false).length > 0 ? side(false) : ['Nothing.'] },
    );
  }
  const alternatives = d.causes.slice(1, 4).map((c) => {
    const against = c.evidence.filter((e) => e.decibans < 0)[0];
    return `${c.name} (${percentText(c.probability)}): ${against ? `weakest point: ${against.name.toLowerCase()}${against.present ? '' : ' was looked for and not there'}` : 'nothing speaks against it'}. ${cause(c.id)?.doesNot ?? ''}`;
  });
  blocks.push({ kind: 'text', text: 'Alternatives considered', strong: true }, { kind: 'list', items: alternatives });
  blocks.push(
    { kind: 'text', text: 'Left unexplained', strong: true },
    {
      kind: 'list',
      items:
        d.unexplained.length > 0 ? d.unexplained.map((u) => `${u.name}, grade ${u.grade}: ${u.why}`) : ['No finding of grade 2 or more.'],
    },
  );
  const check = d.nextChecks[0];
  if (check && detail === 'full')
    blocks.push({
      kind: 'text',
      key: 'causes.check',
      text: `The check that would tell most: ${check.step.toLowerCase()} for "${check.name.toLowerCase()}" (about ${check.minutes} min${check.first.length > 0 ? `, after ${check.first.map((r) => r.name.toLowerCase()).join('; ')} is recorded: opening destroys it` : ''}). If found: ${check.ifFound.cause.toLowerCase()} ${percentText(check.ifFound.before)} → ${percentText(check.ifFound.after)}; if not: ${check.ifNot.cause.toLowerCase()} ${percentText(check.ifNot.before)} → ${percentText(check.ifNot.after)}.`,
    });
  if (d.turningPoint && detail === 'full')
    blocks.push({
      kind: 'text',
      key: 'causes.turn',
      text: `If "${d.turningPoint.name.toLowerCase()}" proved to be the other way round, ${d.turningPoint.wouldLead.toLowerCase()} would lead (${percentText(d.turningPoint.probability)}).`,
    });
  blocks.push(...runBlocks(view));
  return { id: 'causes', heading: 'Causes', blocks };
}
