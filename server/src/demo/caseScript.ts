import { randomUUID } from 'node:crypto';
import type { Gauge } from '@true-ledger/core/units';
import { engineTemplate, stationsOf, type EngineLayout } from '@true-ledger/core/engine';
import type { Grade, SurfaceMark, WearClass } from '@true-ledger/core/damage';
import { cause } from '@true-ledger/core/cause';
import { readAnswer } from '@true-ledger/core/opening';
import type { Operation } from '@true-ledger/core/workshop';
import { cellUnits, placeOf, pressKey, NO_FAULTS, readCell, ROLE_KINDS, trueValue } from '@true-ledger/core/measure';
import type { EntryDraft } from '@true-ledger/core/ledger';
import type { EntryBodies, EntryKind } from '@true-ledger/core/entries';
import { seeded } from '@true-ledger/core/specimen';
import { DEMO_GAUGES, MICROMETER } from './gauges.js';

/** One step of a demo case: an entry, a rendered picture for a station, or a signature. */
export type DemoStep =
  | { readonly kind: 'entry'; readonly draft: EntryDraft }
  | { readonly kind: 'picture'; readonly station: string; readonly name: string }
  /** The account is signed as it stands. */
  | { readonly kind: 'sign'; readonly reason: string };

export interface DemoCase {
  readonly number: string;
  readonly steps: readonly DemoStep[];
}

/** Writes a demo case step by step; keeps track of what each field holds so that later entries supersede rightly. */
export class CaseScript {
  readonly steps: DemoStep[] = [];
  private marks = 0;
  private readonly random = seeded(20260901);

  constructor(
    title: string,
    readonly engine: EngineLayout,
  ) {
    this.entry('case-opened', null, { number: '', title, demo: true });
    this.entry('layout-set', null, { layout: engine });
  }

  entry<K extends EntryKind>(kind: K, station: string | null, body: EntryBodies[K]): this {
    this.steps.push({ kind: 'entry', draft: { id: randomUUID(), kind, station, body, basedOn: null } });
    return this;
  }

  intake(values: Partial<Record<EntryBodies['intake-set']['field'], string>>): this {
    for (const [field, value] of Object.entries(values))
      this.entry('intake-set', null, { field: field as EntryBodies['intake-set']['field'], value });
    return this;
  }

  history(text: string, reliability: 'told' | 'seen' | 'measured', feature: string | null, date: string | null = null): this {
    return this.entry('history-line', null, { line: randomUUID(), text, feature, reliability, date });
  }

  looked(feature: string, present: boolean, note: string): this {
    return this.entry('evidence-set', null, { feature, present, note });
  }

  /** An answer of a check before opening, read as the page reads it. */
  check(check: string, field: string, raw: string | readonly string[], unit?: string): this {
    const read = readAnswer(this.engine, check, field, raw, unit);
    if (!read.ok) throw new Error(`${check} ${field}: ${read.problem.sentence}`);
    return this.entry('check-set', null, read.value);
  }

  each(check: string, field: string, values: readonly string[], unit: string): this {
    values.forEach((v, i) => this.check(check, `${field}.${i + 1}`, v, unit));
    return this;
  }

  received(text: string, state: 'received' | 'already-off' | 'missing', by = ''): this {
    return this.entry('received-item', null, { item: randomUUID(), text, state, by });
  }

  buildMark(kind: EntryBodies['build-mark']['kind'], text: string, pointsTo: EntryBodies['build-mark']['pointsTo']): this {
    return this.entry('build-mark', null, { mark: randomUUID(), kind, text, pointsTo });
  }

  question(to: EntryBodies['open-question']['to'], text: string, answer: string | null = null, answeredOn: string | null = null): this {
    return this.entry('open-question', null, { question: randomUUID(), to, text, answer, answeredOn });
  }

  bolts(pattern: string, values: Readonly<Record<string, string>>): this {
    for (const [position, text] of Object.entries(values))
      this.entry('bolt-torque', null, { pattern, position, text, unit: 'N·m', newtonMetre: Number(text) });
    return this;
  }

  noted(item: string, note: string): this {
    return this.entry('hold-set', null, { item, outcome: 'recorded', note });
  }

  passedOver(item: string, note: string): this {
    return this.entry('hold-set', null, { item, outcome: 'lost', note });
  }

  done(...steps: string[]): this {
    for (const step of steps) this.entry('step-set', null, { step, state: 'done', note: '' });
    return this;
  }

  sound(...stations: string[]): this {
    for (const s of stations) this.entry('state-set', s, { state: 'sound' });
    return this;
  }

  stroke(station: string, cls: WearClass, radiusMm: number, points: ReadonlyArray<readonly [number, number]>): this {
    return this.mark(station, { id: `d${++this.marks}`, shape: 'stroke', class: cls, points, radiusMm, made: 'found-so' });
  }

  line(station: string, v: number, from: number, to: number, depth: 'hair' | 'probe' | 'nail' | 'through'): this {
    return this.mark(station, {
      id: `d${++this.marks}`,
      shape: 'line',
      class: 'lining',
      points: [
        [from, v],
        [to, v],
      ],
      radiusMm: 0.15,
      depth,
      made: 'found-so',
    });
  }

  private mark(station: string, mark: SurfaceMark): this {
    return this.entry('mark-made', station, { mark });
  }

  picture(station: string, name = 'as-found.jpg'): this {
    this.steps.push({ kind: 'picture', station, name });
    return this;
  }

  secondOpinion(station: string, grade: Grade, note = ''): this {
    return this.entry('second-opinion', station, { grade, note });
  }

  finding(station: string, grade: Grade, patterns: string[], remark = ''): this {
    for (const pattern of patterns) this.entry('pattern-set', station, { pattern, present: true });
    this.entry('grade-confirmed', station, { grade, proposed: null, reason: '', book: '1' });
    if (remark) this.entry('remark', station, { remark: randomUUID(), text: remark });
    return this;
  }

  pin(station: string, values: readonly [number, number, number, number, number, number], gauge = MICROMETER): this {
    const cells = ['front.A', 'front.B', 'mid.A', 'mid.B', 'rear.A', 'rear.B'];
    return this.read(station, 'journal', Object.fromEntries(cells.map((cell, i) => [cell, values[i]!.toFixed(3)])), gauge);
  }

  /** Reads every wanted cell of a sheet, with the shop's gauges, off the true geometry of an engine that is damaged where `severity` says. */
  gauge(
    station: string | null,
    sheet: string,
    seed: string,
    severity: (station: string) => number,
    optional: readonly string[] = [],
  ): this {
    const place = placeOf(this.engine, station, sheet);
    if (!place) throw new Error(`no place ${station} / ${sheet}`);
    for (const cell of place.cells) {
      if (cell.optional && !optional.some((o) => cell.key === o || cell.key.endsWith(`.${o}`))) continue;
      const kinds = cell.role === 'wall' ? [] : ROLE_KINDS[cell.role];
      const gauge =
        cell.role === 'wall'
          ? DEMO_GAUGES.find((g) => g.id === 'micrometer-0-25-ball')!
          : (kinds.map((kind) => DEMO_GAUGES.find((g) => g.kind === kind)).find(Boolean) ?? MICROMETER);
      const truth = trueValue({ layout: this.engine, seed, severity }, place, cell.key);
      const { press } = pressKey(gauge, { faults: NO_FAULTS, count: 0, last: null }, truth, cell, this.random);
      if (press.kind === 'reading') this.read(station, sheet, { [cell.key]: press.text }, gauge, true);
    }
    return this;
  }

  /** Readings of a sheet as typed, by cell. */
  read(station: string | null, sheet: string, cells: Readonly<Record<string, string>>, gauge: Gauge = MICROMETER, simulated = false): this {
    const place = placeOf(this.engine, station, sheet);
    for (const [key, text] of Object.entries(cells)) {
      const cell = place?.cells.find((c) => c.key === key);
      if (!cell) throw new Error(`no place ${station} / ${sheet} / ${key}`);
      const unit = cellUnits(cell)[0]!;
      const read = readCell(cell, text, unit, gauge);
      if (!read.ok) throw new Error(`${station} / ${sheet} / ${key}: ${read.problem.sentence}`);
      this.entry('reading-taken', station, {
        sheet,
        cell: key,
        take: 1,
        text,
        unit,
        value: read.value.value,
        gauge,
        insisted: false,
        ...(simulated ? { simulated } : {}),
      });
    }
    return this;
  }

  /** Everything not touched so far was looked at and is good, but for `except`. */
  soundRest(...except: string[]): this {
    const touched = new Set(this.steps.flatMap((s) => (s.kind === 'entry' && s.draft.station ? [s.draft.station] : [])));
    return this.sound(
      ...stationsOf(this.engine)
        .map((s) => s.id)
        .filter((id) => !touched.has(id) && !except.includes(id)),
    );
  }

  confirmed(id: string, reason: string, notes: Readonly<Record<string, string>> = {}): this {
    this.entry('cause-decided', null, { cause: id, decision: 'confirmed', reason });
    const record = cause(id);
    if (!record) throw new Error(`no cause ${id}`);
    for (const [part, items] of [
      ['action', record.actions],
      ['collateral', record.collateral],
    ] as const)
      for (const item of items)
        this.entry('answer-set', null, { cause: id, part, item, state: 'done', note: notes[item] ?? 'done at assembly' });
    return this;
  }

  rejected(id: string, reason: string): this {
    return this.entry('cause-decided', null, { cause: id, decision: 'rejected', reason });
  }

  dispose(operation: Operation, reason: string, stations: readonly string[], size = ''): this {
    for (const station of stations) this.entry('disposition-set', station, { operation, size, reason });
    return this;
  }

  plan(route: NonNullable<EntryBodies['plan-set']['route']>, deadline: string, budget: number): this {
    return this.entry('plan-set', null, { route, deadline, from: '2026-11-30', hoursPerDay: 6, workdays: [1, 2, 3, 4, 5], budget });
  }

  quote(route: EntryBodies['quote-sent']['route'], cost: readonly [number, number], days: readonly [number, number], note: string): this {
    const [low, high] = cost;
    return this.entry('quote-sent', null, {
      quote: randomUUID(),
      route,
      currency: 'EUR',
      cost: low,
      costHigh: high,
      days: days[0],
      daysHigh: days[1],
      note,
    });
  }

  concludes(conclusion: string, actions = ''): this {
    this.entry('report-set', null, { field: 'conclusion', value: conclusion });
    return actions ? this.entry('report-set', null, { field: 'actions', value: actions }) : this;
  }

  sign(reason = ''): this {
    this.steps.push({ kind: 'sign', reason });
    return this;
  }
}

export const layout = (template: string, change: Partial<EngineLayout> = {}): EngineLayout => ({
  ...engineTemplate(template)!.layout,
  ...change,
});
