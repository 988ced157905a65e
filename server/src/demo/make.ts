import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { sha256Hex } from '@true-ledger/core/kit';
import type { Author, EntryDraft } from '@true-ledger/core/ledger';
import { caseView, type StationView } from '@true-ledger/core/case';
import { USUAL_TURN, type Pixels, type Point } from '@true-ledger/core/photo';
import { surfaceMaps, takeFlat, takeRound, takeShell, USUAL_SHOT, type Shot } from '@true-ledger/core/specimen';
import { randomBytes, randomUUID } from 'node:crypto';
import { createWriteStream, existsSync, readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { AccountsService } from '../accounts/accounts.service.js';
import { AppModule } from '../app.module.js';
import { ExportService } from '../bundles/export.service.js';
import { readConfig } from '../config.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ReportsService } from '../reports/reports.service.js';
import { ShopService } from '../shop/shop.service.js';
import { PhotosService } from '../photos/photos.service.js';
import { standInJpeg } from '../photos/standInJpeg.js';
import type { DemoCase } from './caseScript.js';
import type { DemoBundle } from './demo.service.js';
import { DEMO_LETTERHEAD } from './parties.js';
import { demoPeople, PEOPLE } from './people.js';
import { pastCases } from './cases/past.js';
import { demoCases } from './scenario.js';

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
  if (view.station.part === 'skirt') {
    const specimen = {
      seed,
      radiusMm: frame.widthMm / Math.PI,
      widthMm: frame.heightMm,
      spanDeg: 180,
      finish: 'turned-aluminium' as const,
      damages: [{ kind: 'wear', map: view.wear }] as const,
    };
    return takeRound(specimen, surfaceMaps(specimen, 1440, 400), { ...shotOf(seed), fill: 0.5, tiltDeg: 4 }, 'piston', 90);
  }
  if (view.station.part === 'crown') {
    // A thin brown film is on every crown that has run.
    const film = { kind: 'deposit', arc: 90, halfDeg: 90, axial: 0.5, axialHalf: 0.5, amount: 0.28, brown: true } as const;
    const specimen = {
      seed,
      radiusMm: frame.widthMm / 2,
      widthMm: frame.widthMm,
      acrossMm: frame.widthMm,
      spanDeg: 180,
      finish: 'cast-aluminium' as const,
      damages: [film, { kind: 'wear', map: view.wear }] as const,
    };
    return takeFlat(specimen, surfaceMaps(specimen, 900, 900), { ...shotOf(seed), fill: 0.55, tiltDeg: 8 }, 'disc');
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
): Promise<string> {
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
    const bytes = await standInJpeg(drawn.pixels);
    const added = await photos.add(
      caseId,
      step.station,
      randomUUID(),
      { name: step.name, bytes, sha256: sha256Hex(bytes) },
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
  return caseId;
}

/**
 * Draws the pictures of the demo cases, writes the cases into an empty database and gives them out as bundles into the folder named on the command line, with
 * a list of them. Takes minutes; what it makes is kept in the repository (`scripts/demoBundles.mjs`).
 */
async function main(folder: string): Promise<void> {
  const app = await NestFactory.createApplicationContext(AppModule.with(readConfig()), { logger: ['error', 'warn'] });
  const authors = await demoPeople(app.get(AccountsService), () => randomBytes(12).toString('hex'));
  await app.get(ShopService).saveShop({ basedOn: 0, letterhead: DEMO_LETTERHEAD }, PEOPLE[0].name);
  const services = { ledger: app.get(LedgerService), photos: app.get(PhotosService), reports: app.get(ReportsService) };
  const exports = app.get(ExportService);
  const listed = join(folder, 'cases.json');
  // Those made before are left as they are: their ids stand in pictures and tests.
  const list: DemoBundle[] = existsSync(listed) ? (JSON.parse(readFileSync(listed, 'utf8')) as DemoBundle[]) : [];
  for (const [i, script] of [...demoCases(), ...pastCases()].entries()) {
    if (list.some((b) => b.number === script.number)) continue;
    const caseId = await loadCase(script, services, authors, i + 1);
    const file = `${script.number}.zip`;
    await exports.write(caseId, () => createWriteStream(join(folder, file)));
    list.push({ caseId, number: script.number, file });
    process.stdout.write(`${file}\n`);
  }
  await writeFile(listed, `${JSON.stringify(list, null, 2)}\n`);
  await app.close();
}

await main(process.argv[2]!);
