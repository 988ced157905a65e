import { Injectable } from '@nestjs/common';
import type { Account, GaugeCheck, GaugeMessage, GaugeSpot, StandIn } from '@true-ledger/contract';
import type { Gauge } from '@true-ledger/core/units';
import { boltCell, BREAK_LOOSE, stripPlan } from '@true-ledger/core/strip';
import { NO_FAULTS, placeOf, pressKey, standInTrace, trueTorque, trueValue, type GaugeFaults } from '@true-ledger/core/measure';
import { caseView, standingGrade, type CaseView } from '@true-ledger/core/case';
import { placeReadings } from '@true-ledger/core/measured';
import { DataSource } from 'typeorm';
import { GaugeCheckRow, GaugeRow, StandInRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { GAUGE_CHANNEL } from '../ledger/events.service.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { PracticeEnginesService } from '../practice/practiceEngines.service.js';
import { wearOf } from '@true-ledger/core/practiceEngine';

/** A part nobody has graded is taken to be nearly sound; one graded 4 is gone. */
const UNGRADED = 0.06;

const checkOf = (row: GaugeCheckRow): GaugeCheck => ({
  id: row.id,
  gaugeId: row.gaugeId,
  masterMm: row.masterMm,
  readMm: row.readMm,
  note: row.note,
  by: row.byName,
  time: row.time.toISOString(),
});

const standInOf = ({ gaugeId, faults, count, last, at }: StandInRow): StandIn => ({ gaugeId, faults, count, last, at });

/** The shop's gauges, their checks, and stand-ins that send readings as a gauge on a wire would. */
@Injectable()
export class GaugesService {
  constructor(
    private readonly db: DataSource,
    private readonly ledger: LedgerService,
    private readonly practice: PracticeEnginesService,
  ) {}

  async list(): Promise<Gauge[]> {
    return (await this.db.getRepository(GaugeRow).find({ order: { id: 'ASC' } })).map((r) => r.gauge);
  }

  async save(gauge: Gauge): Promise<Gauge> {
    await this.db.getRepository(GaugeRow).save({ id: gauge.id, gauge });
    return gauge;
  }

  private async gauge(id: string): Promise<Gauge> {
    const row = await this.db.getRepository(GaugeRow).findOneBy({ id });
    if (!row) throw new ProblemError({ code: 'not-found', sentence: 'The shop has no such gauge. Nothing was changed.', field: 'gauge' });
    return row.gauge;
  }

  async checks(gaugeId: string): Promise<GaugeCheck[]> {
    return (await this.db.getRepository(GaugeCheckRow).find({ where: { gaugeId }, order: { time: 'DESC' } })).map(checkOf);
  }

  /** Keeps a check and dates the record of the gauge by it. The same check sent twice is one. */
  async check(gaugeId: string, body: Pick<GaugeCheck, 'id' | 'masterMm' | 'readMm' | 'note'>, account: Account): Promise<GaugeCheck> {
    const gauge = await this.gauge(gaugeId);
    const time = new Date();
    return this.db.transaction(async (tx) => {
      const known = await tx.getRepository(GaugeCheckRow).findOneBy({ id: body.id });
      if (known) return checkOf(known);
      const row: GaugeCheckRow = { ...body, gaugeId, byName: account.name, time };
      await tx.getRepository(GaugeCheckRow).insert(row);
      await tx.getRepository(GaugeRow).save({ id: gaugeId, gauge: { ...gauge, checkedOn: time.toISOString().slice(0, 10) } });
      return checkOf(row);
    });
  }

  async standIns(): Promise<StandIn[]> {
    return (await this.db.getRepository(StandInRow).find({ order: { gaugeId: 'ASC' } })).map(standInOf);
  }

  /** Sets what is wrong with a stand-in; it starts counting (and drifting) afresh. */
  async hold(gaugeId: string, faults: GaugeFaults = NO_FAULTS): Promise<StandIn> {
    await this.gauge(gaugeId);
    const rows = this.db.getRepository(StandInRow);
    const before = await rows.findOneBy({ gaugeId });
    const row: StandInRow = { gaugeId, faults, count: 0, last: before?.last ?? null, at: before?.at ?? null };
    await rows.save(row);
    await this.tell({ type: 'changed', gauge: gaugeId });
    return standInOf(row);
  }

  async putAway(gaugeId: string): Promise<void> {
    await this.db.getRepository(StandInRow).delete({ gaugeId });
    await this.tell({ type: 'changed', gauge: gaugeId });
  }

  /** The hand has put the gauge there. */
  async put(gaugeId: string, at: GaugeSpot | null): Promise<void> {
    await this.db.getRepository(StandInRow).update({ gaugeId }, { at });
  }

  /** Presses the data key; every open page hears what comes out, whichever process it hangs on. */
  async press(gaugeId: string, where: GaugeSpot | 'master' | null): Promise<GaugeMessage> {
    const gauge = await this.gauge(gaugeId);
    const none = (): ProblemError =>
      new ProblemError({ code: 'not-found', sentence: `${gauge.name} has no stand-in. Set one up under Gauges.`, field: 'gauge' });
    const lies = await this.db.getRepository(StandInRow).findOneBy({ gaugeId });
    if (!lies) throw none();
    // What is true there is looked up before the lock is taken: a request never holds two connections.
    const at = where ?? lies.at;
    if (!at)
      throw new ProblemError({
        code: 'gauge-nowhere',
        sentence: `${gauge.name} is on no place. Open a sheet and put it on a cell, then press again.`,
        field: 'at',
      });
    const { truth, cell } = await this.truth(gauge, at);
    const message = await this.db.transaction(async (tx): Promise<GaugeMessage> => {
      const rows = tx.getRepository(StandInRow);
      const row = await rows.findOne({ where: { gaugeId }, lock: { mode: 'pessimistic_write' } });
      if (!row) throw none();
      const { press, state } = pressKey(gauge, row, truth, cell, Math.random);
      await rows.save({ ...row, count: state.count, last: state.last, at: at === 'master' ? row.at : at });
      return press.kind === 'silent'
        ? { type: 'silent', gauge: gaugeId, at }
        : { type: 'reading', gauge: gaugeId, text: press.text, unit: press.unit, at };
    });
    await this.tell(message);
    return message;
  }

  /** A trace of a cylinder wall as text, by the profilometer stand-in. */
  async trace(gaugeId: string, worn: number): Promise<string> {
    const gauge = await this.gauge(gaugeId);
    const row = await this.db.getRepository(StandInRow).findOneBy({ gaugeId });
    if (!row || gauge.kind !== 'profilometer')
      throw new ProblemError({ code: 'not-found', sentence: 'No profilometer stand-in of that name is held.', field: 'gauge' });
    if (row.faults.silent)
      throw new ProblemError({
        code: 'gauge-silent',
        sentence: `${gauge.name} sent nothing. Look at its lead, then take the trace again.`,
      });
    const points = standInTrace(worn, row.faults, Math.random).map(([x, z]) => `${x.toFixed(4)},${z.toFixed(4)}`);
    return ['x (mm),z (µm)', ...points].join('\n') + '\n';
  }

  /** True value at a place: what was read there before, so that a gauge agrees with the case; else the geometry of a demonstration engine for its grades, or of a practice engine for what is hidden in it. */
  private async truth(
    gauge: Gauge,
    at: GaugeSpot | 'master',
  ): Promise<{ truth: number; cell: NonNullable<ReturnType<typeof placeOf>>['cells'][number] | null }> {
    if (at === 'master') {
      if (gauge.masterMm === undefined)
        throw new ProblemError({
          code: 'gauge-no-master',
          sentence: `No master is recorded for ${gauge.name}. Enter its size first.`,
          field: 'masterMm',
        });
      return { truth: gauge.masterMm, cell: null };
    }
    const view = caseView(await this.ledger.state(at.caseId));
    const hidden = view?.practice ? await this.practice.hiddenOf(at.caseId) : null;
    const severity = view && (hidden ? wearOf(hidden) : severityOf(view));
    if (view && severity && (at.sheet === BREAK_LOOSE || gauge.kind === 'torque-wrench'))
      return { truth: boltTruth(view, severity, gauge, at), cell: null };
    const place = view ? placeOf(view.layout, at.station, at.sheet) : undefined;
    const cell = place?.cells.find((c) => c.key === at.cell);
    if (!view || !severity || !place || !cell)
      throw new ProblemError({ code: 'gauge-nowhere', sentence: 'This engine has no such place to put a gauge on.', field: 'at' });
    const read = placeReadings(view, place).filter((r) => r.value.cell === cell.key && r.value.value !== null && !r.value.insisted);
    if (read.length > 0) return { truth: read[0]!.value.value!, cell };
    return { truth: trueValue({ layout: view.layout, seed: view.caseId, severity }, place, cell.key), cell };
  }

  private async tell(message: GaugeMessage): Promise<void> {
    await this.db.query('SELECT pg_notify($1, $2)', [GAUGE_CHANNEL, JSON.stringify(message)]);
  }
}

/** Torque of a fastener: what was read there, else the demonstration's. A wrench reads nothing else, and nothing else reads it. */
function boltTruth(view: CaseView, severity: (station: string) => number, gauge: Gauge, at: GaugeSpot): number {
  const held = view.bolts.find((b) => boltCell(b.value.pattern, b.value.position) === at.cell)?.value.newtonMetre;
  const pattern = stripPlan(view.layout).steps.find((s) => s.pattern && at.cell.startsWith(`${s.pattern.id}/`))?.pattern;
  const position = pattern?.positions.find((p) => boltCell(pattern.id, p.id) === at.cell);
  if (gauge.kind !== 'torque-wrench' || at.sheet !== BREAK_LOOSE || !pattern || !position)
    throw new ProblemError({
      code: 'gauge-nowhere',
      sentence: `${gauge.name} cannot be put there: a torque wrench reads fasteners, and fasteners are read by a torque wrench.`,
      field: 'at',
    });
  return held ?? trueTorque({ layout: view.layout, seed: view.caseId, severity }, pattern, position.id);
}

function severityOf(view: CaseView): (station: string) => number {
  return (station) => {
    const s = view.byId.get(station);
    const grade = s ? standingGrade(s) : null;
    return grade === null ? UNGRADED : Math.max(UNGRADED, grade / 4);
  };
}
