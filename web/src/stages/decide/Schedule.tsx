import { Alert, Button, Checkbox } from 'antd';
import { percentText } from '@true-ledger/core/cause';
import {
  dateOf,
  daysUntil,
  planIcs,
  planOf,
  plannedTasks,
  planTasks,
  routesOf,
  standingDispositions,
  type Calendar,
  type Plan,
  type Planned,
  spareWords,
} from '@true-ledger/core/salvage';
import { useMemo, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useCase, useRecord } from '../../app/caseContext.js';
import { saveBlob } from '../../app/saveBlob.js';
import { Waiting } from '../../app/Waiting.js';
import { COLOUR } from '../../app/tokens.js';
import { useRoutes } from './useRoutes.js';
import './decide.css';

const DAY = 24;
const ROW = 30;
const LABEL = 250;
const DAYS_SHORT = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];

/** The chosen route as tasks on a calendar: critical path, what has time to spare, the deadline. A bar is dragged to a later day. */
export function Schedule(): ReactNode {
  const { view, state, diagnosis, caseId, readOnly } = useCase();
  const record = useRecord();
  const settings = planOf(view, new Date());
  const calendar = useMemo<Calendar>(
    () => ({ from: settings.from, hoursPerDay: settings.hoursPerDay, workdays: settings.workdays }),
    [settings.from, settings.hoursPerDay, settings.workdays],
  );
  const result = useMemo(() => {
    if (!diagnosis || !settings.route) return null;
    const route = routesOf(view, diagnosis, standingDispositions(view), view.prices).find((r) => r.id === settings.route);
    if (!route) return null;
    return planTasks(plannedTasks(view, route), calendar);
  }, [view, diagnosis, settings.route, calendar]);
  const { routes, stale } = useRoutes(state);
  const spread = routes?.find((r) => r.route.id === settings.route)?.result ?? null;
  if (!diagnosis) return <Waiting what="Weighing the evidence" />;
  if (!settings.route || !result)
    return (
      <p className="pane">
        {settings.route ? 'The route that was chosen is not offered any more.' : 'Choose a route first; its work is what is planned.'}{' '}
        <Link to={`/case/${caseId}/decide/routes`}>Go to the routes</Link>.
      </p>
    );
  if (!result) return null;
  if (!result.ok) return <Alert type="error" role="alert" title={result.problem.sentence} />;
  const plan = result.value;
  const late = daysUntil(settings.from, settings.deadline);
  const done = dateOf(calendar, plan.length);
  return (
    <>
      <div className="row decide-head">
        <span>
          Done <b className="figure">{done.replace('T', ' ')}</b>
          {late !== null && (
            <>
              {' '}
              {plan.length <= late * DAY ? (
                <span className="quiet">{((late * DAY - plan.length) / DAY).toFixed(0)} days before the deadline</span>
              ) : (
                <b className="fault">{((plan.length - late * DAY) / DAY).toFixed(0)} days after the deadline</b>
              )}
            </>
          )}
        </span>
        {spread && (
          <span className="quiet" aria-label="Spread of the finish" aria-busy={stale}>
            as likely as not by <b className="figure">{dateOf(calendar, spread.days.p50 * DAY).slice(0, 10)}</b>, nine times of ten by{' '}
            <b className="figure">{dateOf(calendar, spread.days.p90 * DAY).slice(0, 10)}</b>
            {spread.inTime !== null && <>, in time {percentText(spread.inTime)}</>}
            <span role="status">{stale && ' (being reckoned anew: from before the last change)'}</span>
          </span>
        )}
        <Checkbox.Group
          value={[...settings.workdays]}
          disabled={readOnly}
          options={DAYS_SHORT.map((d, i) => ({ value: i + 1, label: d }))}
          onChange={(days) =>
            days.length > 0 && record({ kind: 'plan-set', station: null, body: { ...settings, workdays: [...days].sort() } })
          }
        />
        <Button
          onClick={() =>
            saveBlob(
              `${view.number}-plan.ics`,
              new Blob([planIcs(plan, calendar, `${view.number} ${view.title}`, new Date().toISOString())], { type: 'text/calendar' }),
            )
          }
        >
          Take calendar
        </Button>
      </div>
      <Gantt
        plan={plan}
        calendar={calendar}
        deadline={late}
        onMove={readOnly ? null : (task, hours) => record({ kind: 'task-moved', station: null, body: { task, notBeforeHours: hours } })}
      />
    </>
  );
}

function Gantt({
  plan,
  calendar,
  deadline,
  onMove,
}: {
  plan: Plan;
  calendar: Calendar;
  deadline: number | null;
  onMove: ((task: string, hours: number) => void) | null;
}): ReactNode {
  const days = Math.max(7, Math.ceil(Math.max(plan.length / DAY, deadline ?? 0)) + 2);
  const step = Math.max(14, Math.min(46, 760 / days));
  const x = (hours: number): number => LABEL + (hours / DAY) * step;
  const [drag, setDrag] = useState<{ id: string; from: number; by: number } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const order = [...plan.tasks].sort((a, b) => a.start - b.start || a.finish - b.finish);
  const at = new Map(order.map((t, i) => [t.id, i]));
  const words = (t: Planned): string =>
    `${t.name}: ${dateOf(calendar, t.start).replace('T', ' ')} to ${dateOf(calendar, t.finish).replace('T', ' ')}, ${spareWords(t)}`;
  const shift = (t: Planned, by: number): void => onMove?.(t.id, Math.max(0, Math.round(t.start / DAY) + by) * DAY);
  const drop = (): void => {
    const task = drag && order.find((t) => t.id === drag.id);
    if (task && drag.by !== 0) shift(task, drag.by);
    setDrag(null);
  };
  return (
    <section className="pane gantt" aria-label="Plan">
      <p className="quiet">
        Dark: critical. Pale tail: time to spare. Drag a bar to a later day, or focus it and press the left and right arrows.
      </p>
      <div className="gantt-scroll" tabIndex={0} role="group" aria-label="Plan by days">
        <svg
          ref={svg}
          width={x(days * DAY) + 10}
          height={order.length * ROW + 44}
          onPointerMove={(e) => drag && setDrag({ ...drag, by: Math.round((e.clientX - drag.from) / step) })}
          onPointerUp={drop}
          onPointerLeave={() => setDrag(null)}
        >
          {Array.from({ length: days }, (_, d) => {
            const date = dateOf(calendar, d * DAY).slice(0, 10);
            const weekday = new Date(`${date}T00:00:00Z`).getUTCDay() || 7;
            return (
              <g key={d}>
                {!calendar.workdays.includes(weekday) && (
                  <rect x={x(d * DAY)} y={24} width={step} height={order.length * ROW} fill={COLOUR.mist} />
                )}
                {(step > 30 || d % 7 === 0) && (
                  <text x={x(d * DAY) + 2} y={16} fontSize={10.5} fill={COLOUR.pencil}>
                    {date.slice(5)}
                  </text>
                )}
              </g>
            );
          })}
          {order.flatMap((t) =>
            t.after.map((a) => {
              const from = plan.tasks.find((p) => p.id === a)!;
              const y0 = 24 + (at.get(a)! + 0.5) * ROW;
              const y1 = 24 + (at.get(t.id)! + 0.5) * ROW;
              return (
                <path
                  key={`${a}-${t.id}`}
                  d={`M${x(from.finish)} ${y0} H${x(t.start) - 4} V${y1}`}
                  fill="none"
                  stroke={from.critical && t.critical ? COLOUR.ink : COLOUR.steel}
                  strokeWidth={1.2}
                />
              );
            }),
          )}
          {order.map((t, i) => {
            const y = 24 + i * ROW;
            const by = drag?.id === t.id ? drag.by * step : 0;
            return (
              <g key={t.id}>
                <text x={LABEL - 8} y={y + 20} textAnchor="end" fontSize={12.5} fill={COLOUR.ink}>
                  {t.name.length > 36 ? `${t.name.slice(0, 35)}…` : t.name}
                </text>
                <rect x={x(t.finish)} y={y + 11} width={Math.max(0, x(t.finish + t.float) - x(t.finish))} height={8} fill={COLOUR.head} />
                <g
                  role="button"
                  tabIndex={0}
                  aria-label={words(t)}
                  className="gantt-bar"
                  transform={`translate(${by} 0)`}
                  onPointerDown={(e) => {
                    if (!onMove) return;
                    e.currentTarget.setPointerCapture?.(e.pointerId);
                    setDrag({ id: t.id, from: e.clientX, by: 0 });
                  }}
                  onKeyDown={(e) => {
                    if (e.key === 'ArrowRight') shift(t, 1);
                    if (e.key === 'ArrowLeft') shift(t, -1);
                    if (e.key === 'ArrowRight' || e.key === 'ArrowLeft') e.stopPropagation();
                  }}
                >
                  <title>{words(t)}</title>
                  <rect
                    x={x(t.start)}
                    y={y + 6}
                    width={Math.max(3, x(t.finish) - x(t.start))}
                    height={18}
                    fill={t.critical ? COLOUR.accent : t.where === 'bench' ? COLOUR.lineDark : COLOUR.line}
                    stroke={COLOUR.pencil}
                    strokeWidth={0.8}
                  />
                </g>
              </g>
            );
          })}
          {deadline !== null && deadline > 0 && (
            <line
              x1={x(deadline * DAY)}
              x2={x(deadline * DAY)}
              y1={20}
              y2={24 + order.length * ROW}
              stroke={COLOUR.fault}
              strokeWidth={2}
              strokeDasharray="4 3"
            />
          )}
        </svg>
      </div>
    </section>
  );
}
