import { Inject, Injectable } from '@nestjs/common';
import {
  healthyOil,
  readLog,
  readResultsCsv,
  simulatedReport,
  type EngineRecord,
  type LaboratoryFault,
  type LogLine,
  type TrueOil,
} from '@true-ledger/core/engineLog';
import type { Account } from '@true-ledger/contract';
import { randomUUID } from 'node:crypto';
import { DataSource, In, IsNull, LessThanOrEqual } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { LaboratoryOrderRow } from '../database/entities.js';
import { ProblemError } from '../http/problem.js';
import { EnginesService } from './engines.service.js';

/** Seconds the stand-in takes where nothing is said, and how many times as long when it is late. */
const TAKES_S = 15;
const LATE = 20;

/** What is in an engine's oil, going by the last result that counts; of one that never had any, a healthy engine's. */
function trueOil(record: EngineRecord, lines: readonly LogLine[]): { oil: TrueOil; inOilOf: (reference: string) => number } {
  const { samples } = readLog(record, lines);
  const last = samples.findLast((s) => s.counts);
  const healthy = healthyOil(record);
  const perService = last?.verdicts.filter((v) => v.perService) ?? [];
  const other = Object.fromEntries(Object.entries(last?.result?.body.figures ?? {}).filter(([id]) => id in healthy.other));
  return {
    oil: {
      wear: { ...healthy.wear, ...Object.fromEntries(perService.map((v) => [v.species, v.value])) },
      other: { ...healthy.other, ...other },
    },
    inOilOf: (reference) => samples.find((s) => s.line.body.reference === reference)?.inOil ?? 100,
  };
}

/** The stand-in of a laboratory that ships with the application: takes a reference, answers after a while, and does what laboratories do wrong when it is told to. */
@Injectable()
export class LaboratoryService {
  constructor(
    private readonly db: DataSource,
    private readonly engines: EnginesService,
    @Inject(CONFIG) private readonly config: ServerConfig,
  ) {}

  async send(account: Account, engineId: string, reference: string, fault: LaboratoryFault): Promise<void> {
    const { lines } = await this.engines.one(account, engineId);
    if (!lines.some((l) => l.kind === 'sample' && l.body.reference === reference))
      throw new ProblemError({
        code: 'engine-line',
        sentence: `No sample of this engine has the reference ${reference}. Nothing was sent; write the sample into the log first.`,
        field: 'reference',
      });
    const due = new Date(Date.now() + (this.config.laboratorySeconds ?? TAKES_S) * (fault === 'late' ? LATE : 1) * 1000);
    const taken = await this.db.getRepository(LaboratoryOrderRow).findOneBy({ reference });
    if (taken && taken.engineId !== engineId)
      throw new ProblemError({
        code: 'engine-line',
        sentence: `The laboratory has had ${reference} from another engine already. Nothing was sent; give this sample a reference of its own.`,
        field: 'reference',
      });
    await this.db
      .getRepository(LaboratoryOrderRow)
      .createQueryBuilder()
      .insert()
      .values({ id: randomUUID(), engineId, reference, fault, due, reported: null })
      .orIgnore()
      .execute();
  }

  /** Writes what the laboratory has ready into the logs by the references it reports. Whatever it got wrong is left for the log to catch. */
  async collect(account: Account, engineId: string): Promise<void> {
    // Those of records that were merged into this one as well.
    const { awaited } = await this.engines.one(account, engineId);
    const orders = await this.db.getRepository(LaboratoryOrderRow).find({
      where: { reference: In(awaited), reported: IsNull(), due: LessThanOrEqual(new Date()) },
    });
    for (const order of orders.filter((o) => o.fault !== 'lost')) {
      const claimed = await this.db
        .getRepository(LaboratoryOrderRow)
        .update({ id: order.id, reported: IsNull() }, { reported: new Date() });
      if (claimed.affected === 0) continue;
      const { record, lines } = await this.engines.one(account, engineId);
      const whose = order.fault === 'swapped' ? await this.another(account, engineId) : { record, lines };
      const { oil } = trueOil(whose.record, whose.lines);
      const reported = new Date().toISOString().slice(0, 10);
      const inOil = trueOil(record, lines).inOilOf(order.reference);
      const csv = simulatedReport(record, { reference: order.reference, reported, inOil }, oil, order.fault, seedOf(order.id));
      const read = readResultsCsv(csv);
      if (!read.ok) throw ProblemError.of(read.problem);
      await this.engines.write(
        engineId,
        {
          lines: read.value.map((result) => ({
            id: randomUUID(),
            kind: 'result',
            day: reported,
            counter: null,
            supersedes: null,
            body: { ...result, insisted: false, simulated: true },
          })),
        },
        'Stand-in laboratory',
      );
    }
  }

  /** Another engine of the shop whose oil is known, the first by its mark; else a healthy one of another fuel. */
  private async another(account: Account, engineId: string): Promise<{ record: EngineRecord; lines: readonly LogLine[] }> {
    const known = (await this.db
      .getRepository(LaboratoryOrderRow)
      .manager.query('SELECT DISTINCT "engineId" FROM engine_lines WHERE kind = \'result\' AND "engineId" <> $1', [engineId])) as Array<{
      engineId: string;
    }>;
    const logs = await Promise.all(known.map((k) => this.engines.one(account, k.engineId)));
    const [first] = logs.sort((a, b) => a.record.mark.localeCompare(b.record.mark));
    if (first) return first;
    const own = await this.engines.one(account, engineId);
    return { record: { ...own.record, fuel: own.record.fuel === 'diesel' ? 'petrol' : 'diesel' }, lines: [] };
  }
}

const seedOf = (id: string): number => Number.parseInt(id.slice(0, 8), 16) / 2 ** 32;
