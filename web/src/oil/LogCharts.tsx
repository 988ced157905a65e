import { formatCounter, linesOf, species, TOLD_FOR, type EngineRecord, type LogReading } from '@true-ledger/core/engineLog';
import { Select } from 'antd';
import type { Data, Layout } from 'plotly.js';
import { useMemo, useState, type ReactNode } from 'react';
import { COLOUR } from '../app/tokens.js';
import { Plot } from '../charts/Plot.js';

const line = (name: string, x: string[], y: Array<number | null>, colour: string, dash?: 'dot' | 'dash'): Data => ({
  type: 'scatter',
  mode: dash ? 'lines' : 'lines+markers',
  name,
  x,
  y,
  line: { color: colour, width: dash ? 1 : 2, ...(dash ? { dash } : {}) },
});

const layoutOf = (y: string): Partial<Layout> => ({
  xaxis: { type: 'date' },
  yaxis: { title: { text: y }, rangemode: 'tozero' },
  margin: { l: 52, r: 10, t: 28, b: 24 },
  legend: { orientation: 'h', y: -0.16, x: 0 },
});

/** Level of the oil over the years, filling by filling, with what was topped up taken off. */
function LevelChart({ reading }: { reading: LogReading }): ReactNode {
  const { data, layout } = useMemo(() => {
    const tops = linesOf(reading.lines, 'top-up');
    return {
      data: [
        ...reading.levels.map((span, i): Data => ({
          ...line(
            i === 0 ? 'over the lower mark, topping up taken off' : '',
            span.points.map((p) => p.line.day),
            span.points.map((p) => p.litres),
            COLOUR.accent,
          ),
          showlegend: i === 0,
          hovertemplate: `%{x}: %{y:.2f} l<extra>${span.oil ?? ''}</extra>`,
        })),
        {
          type: 'scatter',
          mode: 'markers',
          name: 'topped up',
          x: tops.map((t) => t.day),
          y: tops.map((t) => t.body.litres),
          marker: { symbol: 'triangle-up', size: 9, color: COLOUR.bronze },
        } as Data,
      ],
      layout: { ...layoutOf('litres'), yaxis: { title: { text: 'litres' } } } as Partial<Layout>,
    };
  }, [reading]);
  return <Plot data={data} layout={layout} height={230} label="Level of the oil" />;
}

/** Pressure hot at idle and at rated speed; a change of level is drawn where it was found. */
function PressureChart({ reading }: { reading: LogReading }): ReactNode {
  const { data, layout } = useMemo(() => {
    const changes = reading.pressures.flatMap((p) => (p.change ? [p.points[p.change.after]!.day] : []));
    return {
      data: reading.pressures
        .filter((p) => p.points.length > 0)
        .map((p) =>
          line(
            p.state === 'hot-idle' ? 'hot idle' : 'hot, rated speed',
            p.points.map((x) => x.day),
            p.points.map((x) => x.body.bar),
            p.state === 'hot-idle' ? COLOUR.copper : COLOUR.accent,
          ),
        ),
      layout: {
        ...layoutOf('bar'),
        shapes: changes.map((x) => ({
          type: 'line',
          x0: x,
          x1: x,
          yref: 'paper',
          y0: 0,
          y1: 1,
          line: { color: COLOUR.fault, width: 1, dash: 'dot' },
        })),
      } as Partial<Layout>,
    };
  }, [reading]);
  return <Plot data={data} layout={layout} height={230} label="Oil pressure" />;
}

/** A metal or contaminant from sample to sample, with the limit each was held against. */
function SampleChart({ engine, reading }: { engine: EngineRecord; reading: LogReading }): ReactNode {
  const counted = reading.samples.filter((s) => s.counts);
  const ids = [...new Set(counted.flatMap((s) => s.verdicts.map((v) => v.species)))];
  const [picked, setPicked] = useState<string | null>(null);
  const shown = picked ?? counted.at(-1)?.verdicts.find((v) => v.word !== 'within')?.species ?? ids[0] ?? null;
  const { data, layout } = useMemo(() => {
    const rows = reading.samples
      .filter((s) => s.counts)
      .flatMap((s) => s.verdicts.filter((v) => v.species === shown).map((v) => ({ v, day: s.line.day })));
    const of = shown ? species(shown)! : null;
    const days = rows.map((r) => r.day);
    const unit = of
      ? of.group === 'wear'
        ? `mg/kg in ${formatCounter(TOLD_FOR[engine.counter], engine.counter)}`
        : Object.keys(of.units)[0]!
      : '';
    return {
      data: [
        line(
          of?.name ?? '',
          days,
          rows.map((r) => r.v.value),
          COLOUR.accent,
        ),
        line(
          'limit',
          days,
          rows.map((r) => r.v.limit),
          COLOUR.fault,
          'dash',
        ),
        line(
          'watched from',
          days,
          rows.map((r) => r.v.watch),
          COLOUR.warning,
          'dot',
        ),
      ],
      layout: layoutOf(unit),
    };
  }, [reading, shown, engine]);
  if (ids.length === 0 || !shown) return null;
  return (
    <>
      <Select
        aria-label="What of the samples"
        size="small"
        style={{ width: 200 }}
        value={shown}
        options={ids.map((id) => ({ value: id, label: species(id)!.name }))}
        onChange={setPicked}
      />
      <Plot data={data} layout={layout} height={210} label={`${species(shown)!.name} from sample to sample`} />
    </>
  );
}

/** The trends of a log, as far as it has any. */
export function LogCharts({ engine, reading }: { engine: EngineRecord; reading: LogReading }): ReactNode {
  const pressures = reading.pressures.some((p) => p.points.length > 1);
  const levels = reading.levels.some((s) => s.points.length > 1);
  const samples = reading.samples.filter((s) => s.counts).length > 1;
  if (!pressures && !levels && !samples) return <p className="quiet">Two lines of one kind make the first trend.</p>;
  return (
    <div className="log-charts">
      {levels && (
        <section>
          <h3>Level</h3>
          <LevelChart reading={reading} />
        </section>
      )}
      {pressures && (
        <section>
          <h3>Pressure</h3>
          <PressureChart reading={reading} />
        </section>
      )}
      {samples && (
        <section>
          <h3>Samples</h3>
          <SampleChart engine={engine} reading={reading} />
        </section>
      )}
    </div>
  );
}
