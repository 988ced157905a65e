import { percentText } from '../../cause/percent.js';
import type { CaseView } from '../../case/views.js';
import type { SimulatedRoute } from '../../salvage/simulate.js';
import type { ReportBlock, ReportSection } from '../blocks.js';
import { routesChart } from '../drawings.js';

const money = (x: number): string => x.toLocaleString('en-GB', { maximumFractionDigits: 0 }).replace(/,/g, '\u00a0');

/** Ways on, side by side, with what each leaves, and what was promised. Empty until a route is chosen or a quote was sent. */
export function routes(view: CaseView, simulated: readonly SimulatedRoute[]): ReportSection[] {
  if (simulated.length === 0 || (!view.plan?.route && view.quotes.length === 0)) return [];
  const { currency, date, version } = view.prices;
  const inTime = simulated.some((r) => r.result.inTime !== null);
  const blocks: ReportBlock[] = [
    {
      kind: 'table',
      head: ['Route', `Cost, ${currency}: P10 · P50 · P90`, 'Days: P10 · P50 · P90', ...(inTime ? ['In time'] : []), 'Same failure again'],
      rows: simulated.map(({ route, result }) => [
        `${route.name}${view.plan?.route === route.id ? ' (chosen)' : ''}`,
        [result.cost.p10, result.cost.p50, result.cost.p90].map(money).join(' · '),
        [result.days.p10, result.days.p50, result.days.p90].map((d) => d.toFixed(0)).join(' · '),
        ...(inTime ? [percentText(result.inTime ?? 0)] : []),
        percentText(route.repeatRisk),
      ]),
      figures: inTime ? [1, 2, 3, 4] : [1, 2, 3],
    },
    routesChart(simulated, currency, view.plan?.budget ?? null),
    { kind: 'text', text: 'What each leaves unmended', strong: true },
    {
      kind: 'list',
      items: simulated.map(
        ({ route }) => `${route.name}: ${route.unmended.length > 0 ? route.unmended.join('; ') : 'nothing that is known'}.`,
      ),
    },
    {
      kind: 'text',
      key: 'routes.method',
      text: `P10, P50 and P90: one draw in ten, five in ten and nine in ten come out at or under the figure, of ${simulated[0]!.result.draws} draws over three-point estimates (seed ${simulated[0]!.result.seed}); prices of ${date}, book ${version}.`,
    },
  ];
  for (const { value: q, version } of view.quotes)
    blocks.push({
      kind: 'text',
      key: `routes.quote.${q.quote}`,
      text: `Quoted ${version.time.slice(0, 10)} for the route “${q.route.replace('-', ' ')}”: ${q.cost.toFixed(0)} ${q.currency} as likely as not to be enough, ${q.costHigh.toFixed(0)} in nine cases of ten; ${q.days.toFixed(0)} to ${q.daysHigh.toFixed(0)} days.`,
    });
  return [{ id: 'routes', heading: 'Ways on', blocks }];
}
