import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import {
  caseView,
  surfaceMaps,
  takeRound,
  takeShell,
  USUAL_SHOT,
  USUAL_TURN,
  type Author,
  type EntryDraft,
  type Pixels,
  type Point,
  type Shot,
  type StationView,
} from '@true-ledger/core';
import { randomBytes, randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { DataSource } from 'typeorm';
import { AccountsService } from '../accounts/accounts.service.js';
import { AppModule } from '../app.module.js';
import { readConfig } from '../config.js';
import { CaseRow, GaugeRow } from '../database/entities.js';
import { GaugesService } from '../gauges/gauges.service.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ReportsService } from '../reports/reports.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { SheetsService } from '../sheets/sheets.service.js';
import { standInJpeg } from './picture.js';
import type { DemoCase } from './caseScript.js';
import { DEMO_GAUGES, DEMO_STAND_INS } from './gauges.js';
import { demoCases } from './scenario.js';
import { demoSheets } from './sheets.js';

const PEOPLE = [
  { name: 'Mara Quill', signIn: 'mara', role: 'owner' },
  { name: 'Teo Lindqvist', signIn: 'teo', role: 'builder' },
  { name: 'Desk of the insurer', signIn: 'desk', role: 'reader' },
] as const;

/** Linear colours of the benches in the demonstration's pictures. */
const BENCHES = [
  [0.42, 0.29, 0.17],
  [0.34, 0.1, 0.1],
  [0.36, 0.37, 0.4],
  [0.32, 0.31, 0.3],
  [0.13, 0.29, 0.23],
] as const;

/** A picture of a place as it is drawn in the case; the corners lie as a hand would place them. */
function drawStation(view: StationView, seed: number): { pixels: Pixels; corners: readonly Point[] } | null {
  const frame = view.station.surface;
  if (!frame || !view.wear) return null;
  if (view.station.part === 'journal') {
    const specimen = {
      seed,
      radiusMm: frame.widthMm / (2 * Math.PI),
      widthMm: frame.heightMm,
      spanDeg: 360,
      finish: 'ground-steel' as const,
      damages: [{ kind: 'wear', map: view.wear }] as const,
    };
    return takeRound(
      specimen,
      surfaceMaps(specimen, 1800, 360),
      { ...shotOf(seed), fill: 0.4, tiltDeg: 4 },
      'journal',
      USUAL_TURN.facingDeg,
    );
  }
  if (view.station.part !== 'shell') return null;
  const specimen = {
    seed,
    radiusMm: frame.widthMm / Math.PI,
    widthMm: frame.heightMm,
    damages: [{ kind: 'wear', map: view.wear }] as const,
  };
  return takeShell(specimen, surfaceMaps(specimen), shotOf(seed));
}

/** Lamp, bench and hand differ from picture to picture. */
function shotOf(seed: number): Shot {
  return {
    ...USUAL_SHOT,
    seed,
    width: 1200,
    height: 900,
    focal: 1.7 + 0.1 * (seed % 4),
    fill: 0.64,
    tiltDeg: 3 + (seed % 7),
    tiltTowardsDeg: (seed * 67) % 360,
    rollDeg: ((seed * 13) % 15) - 7,
    bench: (['wood', 'cloth', 'steel', 'concrete', 'paint'] as const)[seed % 5]!,
    benchColour: BENCHES[seed % 5]!,
    lamps: 1 + (seed % 2),
    lampWarmth: 0.2 * (seed % 3),
  };
}

async function loadCase(
  script: DemoCase,
  { ledger, photos, reports }: { ledger: LedgerService; photos: PhotosService; reports: ReportsService },
  authors: readonly Author[],
  seed: number,
): Promise<void> {
  const caseId = randomUUID();
  const start = script.steps.filter((s) => s.kind === 'entry' && (s.draft.kind === 'case-opened' || s.draft.kind === 'layout-set'));
  const author = authors[0]!;
  await ledger.open(
    caseId,
    script.number,
    start.flatMap((s) => (s.kind === 'entry' ? [s.draft] : [])),
    author,
  );
  let pictures = 0;
  let waiting: EntryDraft[] = [];
  const by = (draft: EntryDraft): Author => authors[draft.station && draft.kind !== 'second-opinion' ? 1 : 0] ?? author;
  const flush = async (): Promise<void> => {
    const drafts = waiting;
    waiting = [];
    for (let from = 0; from < drafts.length;) {
      let to = from + 1;
      while (to < drafts.length && by(drafts[to]!) === by(drafts[from]!)) to++;
      await ledger.append(caseId, drafts.slice(from, to), by(drafts[from]!));
      from = to;
    }
  };
  for (const step of script.steps) {
    if (start.includes(step)) continue;
    if (step.kind === 'entry') {
      waiting.push(step.draft);
      continue;
    }
    await flush();
    const state = await ledger.state(caseId);
    if (step.kind === 'sign') {
      await reports.sign(caseId, { head: state.head, reason: step.reason, acceptFlags: false }, author);
      continue;
    }
    const station = caseView(state)?.byId.get(step.station);
    const drawn = station ? drawStation(station, seed * 100 + ++pictures) : null;
    if (!drawn) continue;
    const added = await photos.add(
      caseId,
      step.station,
      randomUUID(),
      { name: step.name, bytes: await standInJpeg(drawn.pixels) },
      authors[1] ?? author,
      { standIn: true },
    );
    const { sha256 } = added.entry.body as { sha256: string };
    await ledger.append(
      caseId,
      [{ id: randomUUID(), kind: 'corners-set', station: step.station, basedOn: null, body: { sha256, corners: drawn.corners } }],
      authors[1] ?? author,
    );
  }
  await flush();
}

/** Loads accounts, gauges and cases once; a second call does nothing. Returns sign-in names and passwords only when they were made now. */
async function main(): Promise<void> {
  const app = await NestFactory.createApplicationContext(AppModule.with(readConfig()), { logger: ['error', 'warn'] });
  const db = app.get(DataSource);
  const accounts = app.get(AccountsService);
  const gauges = db.getRepository(GaugeRow);
  for (const gauge of DEMO_GAUGES)
    if (!(await gauges.existsBy({ id: gauge.id }))) await gauges.insert({ id: gauge.id, gauge: gauge as never });
  if (!(await accounts.hasAccounts())) {
    const made = [];
    const authors: Author[] = [];
    for (const person of PEOPLE) {
      const password = process.env['TL_DEMO_PASSWORD'] ?? `bench-${randomBytes(5).toString('hex')}`;
      const account = await accounts.create({ ...person, password });
      authors.push({ id: account.id, name: account.name });
      made.push({ signIn: person.signIn, role: person.role, password });
    }
    if (process.env['TL_DEMO_ACCOUNTS_FILE'])
      await writeFile(process.env['TL_DEMO_ACCOUNTS_FILE'], JSON.stringify(made, null, 2), { mode: 0o600 });
    for (const id of DEMO_STAND_INS) await app.get(GaugesService).hold(id);
    for (const sheet of demoSheets()) await app.get(SheetsService).save(sheet, authors[0]!.name);
    if ((await db.getRepository(CaseRow).count()) === 0) {
      const only = process.env['TL_DEMO_ONLY']?.split(',');
      const services = { ledger: app.get(LedgerService), photos: app.get(PhotosService), reports: app.get(ReportsService) };
      for (const [i, script] of demoCases().entries())
        if (!only || only.includes(script.number)) await loadCase(script, services, authors, i + 1);
    }
  }
  await app.close();
}

await main();
