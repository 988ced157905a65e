import { answerItems, releaseCheck, warrantyChecklist } from '../../diagnosis/answers.js';
import type { Diagnosis } from '../../diagnosis/diagnose.js';
import { firstStartProcedure } from '../../cause/firstStart.js';
import type { CaseView } from '../../case/views.js';
import type { ReportBlock, ReportSection } from '../blocks.js';

/** Corrective actions and collateral checks of the confirmed causes, answerability, and for a maker what his desk asks for. */
export function answers(view: CaseView, d: Diagnosis, warranty: boolean): ReportSection[] {
  const items = answerItems(view);
  const blocks: ReportBlock[] = [];
  if (items.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Cause', 'What is to be done', 'State', 'Note'],
      rows: items.map((i) => [i.causeName, `${i.part === 'action' ? '' : 'Check: '}${i.item}`, i.state.replace('-', ' '), i.note]),
    });
  const who = view.answerable?.value;
  if (who)
    blocks.push({
      kind: 'text',
      key: 'answers.answerable',
      text: `Answerability, stated apart from the cause and without finding fault: ${who.who}. ${who.reason}`,
    });
  if (warranty)
    blocks.push(
      { kind: 'text', text: 'For the maker', strong: true },
      { kind: 'table', head: ['Asked for', 'Recorded'], rows: warrantyChecklist(view).map((w) => [w.what, w.value]) },
    );
  const accepted = d.unexplained.filter((u) => view.unexplained.get(u.station)?.value.accepted);
  if (accepted.length > 0)
    blocks.push(
      { kind: 'text', text: 'Accepted as unexplained', strong: true },
      {
        kind: 'list',
        items: accepted.map((u) => {
          const held = view.unexplained.get(u.station)!;
          return `${u.name}, grade ${u.grade}: ${held.value.reason} (${held.version.author.name})`;
        }),
      },
    );
  const confirmed = view.decisions.filter((x) => x.value.decision === 'confirmed').map((x) => x.value.cause);
  if (items.length > 0)
    blocks.push(
      { kind: 'text', text: 'First start', strong: true },
      {
        kind: 'list',
        items: firstStartProcedure(view.layout, confirmed).map((s) => (s.caution ? `${s.what} Caution: ${s.caution}` : s.what)),
      },
    );
  if (view.released)
    blocks.push({
      kind: 'text',
      key: 'answers.released',
      text: `Released by ${view.released.version.author.name} on ${view.released.version.time.slice(0, 10)}.${view.released.value.note ? ` ${view.released.value.note}` : ''}${releaseCheck(view, d).ready ? '' : ' What was recorded since stands against it.'}`,
    });
  return blocks.length > 0 ? [{ id: 'answers', heading: 'What answers it', blocks }] : [];
}
