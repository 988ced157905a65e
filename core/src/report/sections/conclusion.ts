import type { Diagnosis } from '../../diagnosis/diagnose.js';
import { rangeWord } from '../../diagnosis/diagnose.js';
import { cause } from '../../cause/data/causes.js';
import { percentText } from '../../cause/percent.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** What the builder concludes, beside the first impression and what leads now. */
export function conclusion(view: CaseView, d: Diagnosis): ReportSection {
  const first = view.intake('firstImpression');
  const lead = d.causes[0];
  const confirmed = view.decisions.filter((x) => x.value.decision === 'confirmed');
  const blocks: ReportBlock[] = [
    { kind: 'text', text: view.report('conclusion') || 'No conclusion has been written yet.' },
    {
      kind: 'text',
      key: 'conclusion.first',
      text: `First impression at intake: ${first && first !== 'none-yet' ? (cause(first)?.name ?? first) : 'none stated'}. Leading now: ${lead ? `${lead.name} (${percentText(lead.probability)}, ${rangeWord(lead.probability)})` : 'none'}.`,
    },
  ];
  if (confirmed.length === 0)
    blocks.push({
      kind: 'text',
      key: 'conclusion.unconfirmed',
      text: 'No cause has been confirmed by the builder; what leads is said as weighed.',
    });
  for (const c of confirmed) {
    const record = cause(c.value.cause);
    if (record)
      blocks.push(
        { kind: 'text', text: `${record.name}: corrective actions and collateral to check`, strong: true },
        { kind: 'list', items: [...record.actions, ...record.collateral.map((x) => `Check: ${x}`)] },
      );
  }
  if (view.report('actions')) blocks.push({ kind: 'text', text: view.report('actions') });
  return { id: 'conclusion', heading: 'Conclusion', blocks };
}
