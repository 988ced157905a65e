import type { CaseView } from '../../case/views.js';
import { caseOilLog, oilAgainstMetal } from '../../diagnosis/oilLogEvidence.js';
import { linesOf } from '../../engineLog/lines.js';
import { species } from '../../engineLog/species.js';
import { TOLD_FOR } from '../../engineLog/trends.js';
import { formatCounter } from '../../engineLog/words.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** The engine's log as the case took it over: what it says, its samples, and where oil and metal do not agree. Nothing where none was taken. */
export function oil(view: CaseView): readonly ReportSection[] {
  const reading = caseOilLog(view);
  const log = view.oilLog?.value.log;
  if (!reading || !log) return [];
  const { lines } = reading;
  const [first, last] = [lines[0], lines.at(-1)];
  const per = formatCounter(TOLD_FOR[log.engine.counter], log.engine.counter);
  const blocks: ReportBlock[] = [
    {
      kind: 'text',
      key: 'oil.span',
      text: first
        ? `The log of engine ${log.engine.mark} runs from ${first.day} to ${last!.day}: ${lines.length} lines, ${linesOf(lines, 'oil-change').length} oil changes, ${reading.samples.length} samples.`
        : `The log of engine ${log.engine.mark} is empty.`,
    },
  ];
  const told = reading.findings.filter((f) => !f.id.startsWith('within-'));
  if (told.length > 0) blocks.push({ kind: 'list', items: told.map((f) => f.words) });
  for (const words of oilAgainstMetal(view)) blocks.push({ kind: 'text', key: 'oil.metal', text: words });
  const counted = reading.samples.filter((s) => s.counts).slice(-6);
  const shown = [...new Set(counted.flatMap((s) => s.verdicts.map((v) => v.species)))];
  if (counted.length > 0)
    blocks.push(
      {
        kind: 'table',
        head: ['', ...counted.map((s) => s.line.day)],
        rows: shown.map((id) => {
          const perService = species(id)!.group === 'wear';
          return [
            `${species(id)!.name}${perService ? `, mg/kg in ${per}` : `, ${Object.keys(species(id)!.units)[0]}`}`,
            ...counted.map((s) => {
              const v = s.verdicts.find((x) => x.species === id);
              return v ? `${v.value.toPrecision(2)}${v.word === 'within' ? '' : v.word === 'beyond' ? ' beyond' : ' watched'}` : '–';
            }),
          ];
        }),
        figures: counted.map((_, i) => i + 1),
      },
      {
        kind: 'text',
        key: 'oil.method',
        text: 'Wear metals are made good for service and for what was topped up. “Beyond” is past the limits of the engine’s own history where it has one, else of its kind. A single clean sample cannot clear the bearings.',
      },
    );
  if (reading.doubts.length > 0)
    blocks.push(
      { kind: 'text', text: 'What in the log cannot be right', strong: true },
      { kind: 'list', items: reading.doubts.map((d) => d.words) },
    );
  return [{ id: 'oil', heading: 'Oil and service', blocks }];
}
