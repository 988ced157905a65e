import { Inject, Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { ImportService } from '../bundles/import.service.js';
import { CONFIG, type ServerConfig } from '../config.js';
import { AccountRow, CaseRow, GaugeRow } from '../database/entities.js';
import { EnginesService } from '../engines/engines.service.js';
import { GaugesService } from '../gauges/gauges.service.js';
import { PracticeEnginesService } from '../practice/practiceEngines.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { ShopService } from '../shop/shop.service.js';
import { demoEngines } from './engines.js';
import { DEMO_GAUGES, DEMO_STAND_INS } from './gauges.js';
import { DEMO_LETTERHEAD, DEMO_PARTIES } from './parties.js';
import { demoPeople, PEOPLE } from './people.js';
import { demoSheets } from './sheets.js';

/** Practice engines of the demonstration: one for a beginner, one somebody was inside, one with two causes. */
const DEMO_PRACTICE = [
  { id: '5f6f3d52-7a41-4c6e-9d0a-3b1c2e4f5a01', level: 1, seed: 12 },
  { id: '5f6f3d52-7a41-4c6e-9d0a-3b1c2e4f5a02', level: 5, seed: 5 },
  { id: '5f6f3d52-7a41-4c6e-9d0a-3b1c2e4f5a03', level: 8, seed: 8 },
] as const;

export interface DemoBundle {
  readonly caseId: string;
  readonly number: string;
  readonly file: string;
}

/** How far the demo cases are in. */
export interface DemoProgress {
  readonly taken: number;
  readonly total: number;
}

/** The demonstration: accounts, gauges and sheets at once, then the shipped cases one after the other through the importer. What is left goes on at the next start. */
@Injectable()
export class DemoService implements OnApplicationShutdown {
  private readonly log = new Logger('demo');
  private stopped = false;
  progress: DemoProgress = { taken: 0, total: 0 };

  constructor(
    @Inject(CONFIG) private readonly config: ServerConfig,
    private readonly db: DataSource,
    private readonly accounts: AccountsService,
    private readonly gauges: GaugesService,
    private readonly sheets: SheetsService,
    private readonly imports: ImportService,
    private readonly shop: ShopService,
    private readonly engines: EnginesService,
    private readonly practice: PracticeEnginesService,
  ) {}

  /** Prepares an empty shop for the demo. Returns the cases that are still to be taken in; none in a shop that is not a demo. */
  async prepare(): Promise<readonly DemoBundle[]> {
    const demo = this.config.demo;
    if (!demo) return [];
    const owner = PEOPLE[0];
    if (!(await this.accounts.hasAccounts())) {
      const rows = this.db.getRepository(GaugeRow);
      for (const gauge of DEMO_GAUGES)
        if (!(await rows.existsBy({ id: gauge.id }))) await rows.insert({ id: gauge.id, gauge: gauge as never });
      for (const id of DEMO_STAND_INS) await this.gauges.hold(id);
      for (const { id, record, lines } of demoEngines()) {
        await this.engines.make({ id, record }, owner.name);
        for (let i = 0; i < lines.length; i += 200)
          await this.engines.write(id, { lines: lines.slice(i, i + 200) }, owner.name, ({ day }) => new Date(`${day}T17:00:00Z`));
      }
      for (const sheet of demoSheets()) await this.sheets.save(sheet, owner.name);
      await this.shop.saveShop({ basedOn: 0, letterhead: DEMO_LETTERHEAD }, owner.name);
      const passwords = new Map(PEOPLE.map((p) => [p.signIn as string, demo.password ?? `bench-${randomBytes(5).toString('hex')}`]));
      // Written before the accounts are: passwords nobody was told would be worth nothing.
      if (demo.accountsFile) {
        const made = PEOPLE.map(({ signIn, role }) => ({ signIn, role, password: passwords.get(signIn) }));
        await writeFile(demo.accountsFile, JSON.stringify(made, null, 2), { mode: 0o600 });
      }
      await demoPeople(this.accounts, (signIn) => passwords.get(signIn)!);
    }
    if (!(await this.db.getRepository(AccountRow).existsBy({ id: owner.id }))) return [];
    if (!demo.only) for (const engine of DEMO_PRACTICE) await this.practice.make(engine, owner);
    const all = (JSON.parse(readFileSync(join(this.folder, 'cases.json'), 'utf8')) as DemoBundle[]).filter(
      (b) => !demo.only || demo.only.includes(b.number),
    );
    const left: DemoBundle[] = [];
    for (const bundle of all) if (!(await this.db.getRepository(CaseRow).existsBy({ id: bundle.caseId }))) left.push(bundle);
    this.progress = { taken: all.length - left.length, total: all.length };
    return left;
  }

  private get folder(): string {
    return join(this.config.root, 'server', 'demo');
  }

  /** Takes the cases in, telling each. */
  async takeIn(
    left: readonly DemoBundle[],
    told: (progress: DemoProgress & { readonly number: string }) => void = () => undefined,
  ): Promise<void> {
    const owner = { id: PEOPLE[0].id, name: PEOPLE[0].name };
    for (const { caseId, file, number } of left) {
      if (this.stopped) return;
      try {
        await this.imports.take(join(this.folder, file), owner, 'ours');
        const parties = DEMO_PARTIES[number];
        const engine = demoEngines().find((e) => e.cases.includes(number));
        if (engine) await this.engines.hang(caseId, engine.id, owner.name);
        if (parties) await this.shop.saveParties(caseId, { basedOn: 0, parties }, owner.name);
      } catch (error) {
        if (this.stopped) return;
        this.log.warn(
          `${number} was not taken in; it is tried again at the next start. ${error instanceof Error ? error.message : String(error)}`,
        );
        continue;
      }
      this.progress = { ...this.progress, taken: this.progress.taken + 1 };
      told({ ...this.progress, number });
    }
  }

  onApplicationShutdown(): void {
    this.stopped = true;
  }
}
