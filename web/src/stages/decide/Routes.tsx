import { Alert, App, Button, Radio, Upload } from 'antd';
import { percentText } from '@true-ledger/core/cause';
import { priceBookCsv, readPriceCsv } from '@true-ledger/core/workshop';
import type { EntryBodies } from '@true-ledger/core/entries';
import { daysUntil, planOf, ROUTE_DRAWS, ROUTE_SEED } from '@true-ledger/core/salvage';
import { memo, useMemo, type ReactNode } from 'react';
import { DateField } from '../../fields/DateField.js';
import { NumberField } from '../../fields/NumberField.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { saveBlob } from '../../app/saveBlob.js';
import { Waiting } from '../../app/Waiting.js';
import { Plot } from '../../charts/Plot.js';
import { COLOUR } from '../../app/tokens.js';
import { useRoutes } from './useRoutes.js';
import './decide.css';

/** Routes side by side: cost, time, chance of the deadline, risk of the same again, and what each leaves. */
export function Routes(): ReactNode {
  const { view, state, readOnly } = useCase();
  const record = useRecord();
  const plan = planOf(view, new Date());
  const deadlineDays = daysUntil(plan.from, plan.deadline);
  const { routes: found, stale } = useRoutes(state);
  const money = (x: number): string => x.toLocaleString('en-GB', { maximumFractionDigits: 0 }).replace(/,/g, ' ');
  const set = (more: Partial<EntryBodies['plan-set']>): void => record({ kind: 'plan-set', station: null, body: { ...plan, ...more } });
  const chart = useMemo(() => {
    const list = [...(found ?? [])].reverse();
    return {
      data: [
        {
          type: 'bar' as const,
          orientation: 'h' as const,
          name: 'P10 to P90',
          y: list.map((r) => r.route.name),
          base: list.map((r) => r.result.cost.p10) as never,
          x: list.map((r) => r.result.cost.p90 - r.result.cost.p10),
          marker: { color: COLOUR.steel },
          hoverinfo: 'skip' as const,
        },
        {
          type: 'scatter' as const,
          mode: 'markers' as const,
          name: 'P50',
          y: list.map((r) => r.route.name),
          x: list.map((r) => r.result.cost.p50),
          marker: { color: COLOUR.accent, size: 11, symbol: 'line-ns-open' as const, line: { width: 3 } },
        },
      ],
      layout: {
        margin: { l: 190, r: 16, t: 10, b: 40 },
        xaxis: { title: { text: `Cost, ${view.prices.currency}` }, rangemode: 'tozero' as const },
        shapes:
          plan.budget === null
            ? []
            : [
                {
                  type: 'line' as const,
                  x0: plan.budget,
                  x1: plan.budget,
                  y0: 0,
                  y1: 1,
                  yref: 'paper' as const,
                  line: { color: COLOUR.fault, dash: 'dot' as const },
                },
              ],
      },
    };
  }, [found, plan.budget, view.prices.currency]);
  const first = view.quotes[0]?.value;
  if (!found) return <Waiting what="Reckoning the routes" />;
  const chosen = found.find((r) => r.route.id === plan.route);
  return (
    <>
      <div className="row decide-head plan-fields">
        <PlanFields />
        <Prices />
      </div>
      <section className="pane" aria-label="Routes" aria-busy={stale}>
        <table className="lines routes-table">
          <thead>
            <tr>
              <th>Route</th>
              <th className="figure">Cost P10 · P50 · P90</th>
              <th className="figure">Days P10 · P50 · P90</th>
              <th className="figure">In time</th>
              <th className="figure">Same again</th>
              <th className="figure">Warranty</th>
              <th>Leaves unmended</th>
            </tr>
          </thead>
          <tbody>
            {found.map(({ route, result }) => (
              <tr key={route.id} className={plan.route === route.id ? 'here' : ''}>
                <td>
                  <Radio checked={plan.route === route.id} disabled={readOnly} onChange={() => set({ route: route.id })}>
                    {route.name}
                  </Radio>
                  {route.unpriced.length > 0 && <div className="fault">no price for {route.unpriced.join(', ')}</div>}
                </td>
                <td className="figure">
                  {money(result.cost.p10)} · <b>{money(result.cost.p50)}</b> · {money(result.cost.p90)}
                </td>
                <td className="figure">
                  {result.days.p10.toFixed(0)} · <b>{result.days.p50.toFixed(0)}</b> · {result.days.p90.toFixed(0)}
                </td>
                <td className="figure">{result.inTime === null ? '–' : percentText(result.inTime)}</td>
                <td className="figure" title={route.riskWords.join('; ')}>
                  {percentText(route.repeatRisk)}
                </td>
                <td className="figure">{route.warrantyMonths === 0 ? 'none' : `${route.warrantyMonths} months`}</td>
                <td className="quiet">{route.unmended.slice(0, 3).join('; ') || 'nothing known'}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {/* Under the table, so that nothing moves under the hand while it comes and goes. */}
        <p className="quiet">
          <span role="status">{stale && 'Being reckoned anew: the figures are from before the last change. '}</span>
          {ROUTE_DRAWS.toLocaleString('en-GB').replace(',', ' ')} draws of a PERT distribution over every line, always the same ones (seed{' '}
          {ROUTE_SEED}
          ). Risk of the same failure again within the warranty: rest on a figure to see what it is made of. Prices of {view.prices.date},
          version {view.prices.version}.
        </p>
      </section>
      {plan.deadline !== null && deadlineDays !== null && deadlineDays < 0 && (
        <Alert type="warning" title={`The deadline ${plan.deadline} lies before the start ${plan.from}: no route can meet it.`} />
      )}
      <section className="pane" aria-label="Cost of the routes">
        <Plot data={chart.data} layout={chart.layout} height={60 + 34 * found.length} label="Cost of the routes, P10 to P90 with P50" />
      </section>
      {chosen && (
        <section className="pane" aria-label="Quote">
          <h2>{chosen.route.name}</h2>
          {first && (
            <p>
              First promised: <b className="figure">{money(first.cost)}</b> to {money(first.costHigh)} {first.currency},{' '}
              {first.days.toFixed(0)} to {first.daysHigh.toFixed(0)} days. Now {money(chosen.result.cost.p50)} to{' '}
              {money(chosen.result.cost.p90)}, {chosen.result.days.p50.toFixed(0)} to {chosen.result.days.p90.toFixed(0)} days:{' '}
              <b>{growth(chosen.result.cost.p50, first.cost)}</b>.
            </p>
          )}
          {!readOnly && (
            <Button
              disabled={stale}
              onClick={() =>
                record({
                  kind: 'quote-sent',
                  station: null,
                  body: {
                    quote: crypto.randomUUID(),
                    route: chosen.route.id,
                    currency: view.prices.currency,
                    cost: Math.round(chosen.result.cost.p50),
                    costHigh: Math.round(chosen.result.cost.p90),
                    days: Math.round(chosen.result.days.p50),
                    daysHigh: Math.round(chosen.result.days.p90),
                    note: '',
                  },
                })
              }
            >
              Keep as quote
            </Button>
          )}
          <table className="lines">
            <tbody>
              {chosen.route.lines.map((l) => (
                <tr key={l.what}>
                  <td>{l.what}</td>
                  <td className="figure">× {l.quantity}</td>
                  <td className="figure">
                    {money(l.cost.low * l.quantity)} · {money(l.cost.likely * l.quantity)} · {money(l.cost.high * l.quantity)}
                  </td>
                  <td className="figure quiet">
                    {l.days.low} to {l.days.high} days
                  </td>
                </tr>
              ))}
              <tr>
                <td>Bench hours</td>
                <td />
                <td className="figure">
                  {chosen.route.hours.low.toFixed(0)} · {chosen.route.hours.likely.toFixed(0)} · {chosen.route.hours.high.toFixed(0)} h
                </td>
                <td />
              </tr>
            </tbody>
          </table>
        </section>
      )}
    </>
  );
}

/** Start, deadline, hours and budget. Apart from what is reckoned: an answer that comes must not take from a field what is being typed. */
const PlanFields = memo(function PlanFields(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const plan = planOf(view, new Date());
  const set = (more: Partial<EntryBodies['plan-set']>): void => record({ kind: 'plan-set', station: null, body: { ...plan, ...more } });
  return (
    <>
      <label>
        <span>Start</span>
        <DateField needed value={plan.from} disabled={readOnly} onChange={(from) => from && set({ from })} aria-label="Start" />
      </label>
      <label>
        <span>Deadline</span>
        <DateField value={plan.deadline} disabled={readOnly} onChange={(deadline) => set({ deadline })} aria-label="Deadline" />
      </label>
      <label>
        <span>Bench hours a day</span>
        <NumberField
          min={0.5}
          max={24}
          late
          unit="h"
          value={plan.hoursPerDay}
          readOnly={readOnly}
          onChange={(v) => v && set({ hoursPerDay: v })}
          aria-label="Bench hours a day"
        />
      </label>
      <label>
        <span>Budget, {view.prices.currency}</span>
        <NumberField
          late
          min={0}
          max={1e8}
          unit={view.prices.currency}
          value={plan.budget}
          readOnly={readOnly}
          onChange={(v) => set({ budget: v })}
          aria-label="Budget"
        />
      </label>
    </>
  );
});

function growth(now: number, then: number): string {
  const share = then > 0 ? (now - then) / then : 0;
  return Math.abs(share) < 0.005
    ? 'as promised'
    : `${share > 0 ? 'grown' : 'fallen'} by ${percentText(Math.abs(share))} since the first quote`;
}

function Prices(): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const { message } = App.useApp();
  const take = async (file: File): Promise<void> => {
    const read = readPriceCsv(await file.text(), new Date().toISOString().slice(0, 10), file.name.slice(0, 40));
    if (!read.ok) void message.error(read.problem.sentence, 8);
    else {
      record({ kind: 'price-book-set', station: null, body: { book: read.value } });
      void message.info(`${read.value.lines.length} prices taken over.`);
    }
  };
  return (
    <span className="row">
      <Button onClick={() => saveBlob('prices.csv', new Blob([priceBookCsv(view.prices)], { type: 'text/csv' }))}>Prices as CSV</Button>
      {!readOnly && (
        <Upload accept=".csv,text/csv" showUploadList={false} beforeUpload={(file) => (void take(file), false)}>
          <Button>Take prices from CSV</Button>
        </Upload>
      )}
    </span>
  );
}
