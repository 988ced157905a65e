import { cylinderPlaces, pinNumber } from '../engine/layout.js';
import { fedBy, isUnfiltered, oilRoute, routeDistance } from '../engine/oilRoute.js';
import { RUNNING_PARTS, type Station } from '../engine/stations.js';
import { isExamined, showsFact, standingGrade, type CaseView, type StationView } from '../case/views.js';
import { failedHere, secondaryPlaces } from './secondary.js';

/** What a rule finds: there, not there, or too little examined to say; with the stations it rests on. */
export interface SpreadFinding {
  readonly present: boolean;
  readonly stations: readonly string[];
  readonly words: string;
  /** It rests on light marks alone. */
  readonly faint?: true;
}

export type SpreadFindings = Readonly<Record<string, SpreadFinding>>;

interface Bearing {
  /** One of its stations. */
  readonly of: Station;
  readonly stem: string;
  readonly main: boolean;
  readonly number: number;
  readonly grade: number;
  readonly upper: number | null;
  readonly lower: number | null;
  readonly stations: readonly string[];
}

/** Grade from which a place counts as damaged. */
export const BAD = 2;
const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

function gradeOf(view: CaseView, id: string): number | null {
  const station = view.byId.get(id);
  return station && isExamined(station) ? standingGrade(station) : null;
}

/** Bearings that were examined, with the worse of their halves; what another bearing shed into them does not count. */
function bearings(view: CaseView): { examined: Bearing[]; total: number } {
  const stems = new Map<string, StationView[]>();
  for (const s of view.stations) {
    if (s.station.part !== 'shell' && s.station.part !== 'rolling') continue;
    const stem = s.station.unit;
    stems.set(stem, [...(stems.get(stem) ?? []), s]);
  }
  const examined: Bearing[] = [];
  const secondary = secondaryPlaces(view);
  const own = (id: string): number | null => {
    const g = gradeOf(view, id);
    return g !== null && secondary.has(id) ? Math.min(1, g) : g;
  };
  for (const [stem, list] of stems) {
    const grades = list.flatMap((s) => own(s.station.id) ?? []);
    if (grades.length === 0) continue;
    const ofHalf = (half: 'upper' | 'lower'): number | null => {
      const s = list.find((x) => x.station.half === half);
      return s ? own(s.station.id) : null;
    };
    examined.push({
      of: list[0]!.station,
      stem,
      main: list[0]!.station.carries === 'crank',
      number: list[0]!.station.number,
      grade: Math.max(...grades),
      upper: ofHalf('upper'),
      lower: ofHalf('lower'),
      stations: list.filter(isExamined).map((s) => s.station.id),
    });
  }
  return { examined, total: stems.size };
}

/** Pearson correlation; 0 when either side does not vary. */
export function correlation(x: readonly number[], y: readonly number[]): number {
  const mx = mean(x);
  const my = mean(y);
  let sxy = 0;
  let sxx = 0;
  let syy = 0;
  x.forEach((v, i) => {
    const dy = (y[i] as number) - my;
    sxy += (v - mx) * dy;
    sxx += (v - mx) ** 2;
    syy += dy ** 2;
  });
  return sxx * syy === 0 ? 0 : sxy / Math.sqrt(sxx * syy);
}

/** Spread features computed over the layout from grades and wear maps; a feature that cannot be decided yet is absent from the result. */
export function spreadFindings(view: CaseView): SpreadFindings {
  const out: Record<string, SpreadFinding> = {};
  const set = (id: string, present: boolean, stations: readonly string[], words: string): void => {
    out[id] = { present, stations, words };
  };
  bearingSpread(view, set);
  halvesAndEdges(view, set);
  pistonSpread(view, set);
  wholeEngine(view, set);
  elsewhere(view, set);
  for (const [id, finding] of Object.entries(lightMarks(view))) out[id] ??= finding;
  return out;
}

/** Marks of grade 1 are looked at where there is no more: two places of them at least, and others that have none. */
const LIGHT = 1;

/**
 * On an engine opened early nothing is of grade 2, and light marks on the same half everywhere are the evidence. Only what they show is said, never what they do not.
 */
function lightMarks(view: CaseView): SpreadFindings {
  const { examined } = bearings(view);
  const marked = examined.filter((b) => b.grade === LIGHT);
  if (marked.length < 2 || examined.some((b) => b.grade >= BAD)) return {};
  const out: Record<string, SpreadFinding> = {};
  const ids = marked.flatMap((b) => b.stations);
  const say = (id: string, there: boolean, words: string): void => {
    if (there) out[id] = { present: true, stations: ids, words, faint: true };
  };
  const halves = marked.filter((b) => b.upper !== null && b.lower !== null);
  const share = (of: readonly Bearing[]): number => of.length / Math.max(1, halves.length);
  if (halves.length >= 2) {
    const words = `light marks on ${halves.length} bearings`;
    say('spread.upper-halves', share(halves.filter((b) => b.upper! > b.lower!)) >= 0.6, `${words}, mostly the upper half`);
    say('spread.lower-halves', share(halves.filter((b) => b.lower! > b.upper!)) >= 0.6, `${words}, mostly the lower half`);
  }
  const mains = examined.filter((b) => b.main);
  const rods = examined.filter((b) => !b.main);
  if (mains.length >= 2 && rods.length >= 2) {
    const difference = mean(rods.map((b) => b.grade)) - mean(mains.map((b) => b.grade));
    const words = `light marks: big ends average grade ${mean(rods.map((b) => b.grade)).toFixed(1)}, mains ${mean(mains.map((b) => b.grade)).toFixed(1)}`;
    say('spread.rods-worse', difference >= 0.5, words);
    say('spread.mains-worse', difference <= -0.5, words);
  }
  return out;
}

type Setter = (id: string, present: boolean, stations: readonly string[], words: string) => void;

/** Does damage keep to what a branch before the filter feeds? */
function unfilteredBranch(view: CaseView, set: Setter): void {
  if ((view.layout.unfiltered?.length ?? 0) === 0) return;
  const graded = view.stations.flatMap((s) => {
    const grade = gradeOf(view, s.station.id);
    return grade !== null && (s.station.bearing || view.layout.unfiltered!.includes(s.station.id)) ? [{ s, grade }] : [];
  });
  const before = graded.filter(({ s }) => isUnfiltered(view.layout, s.station));
  const behind = graded.filter(({ s }) => !isUnfiltered(view.layout, s.station));
  const bad = before.filter((x) => x.grade >= BAD).map(({ s }) => s.station.id);
  if (before.length === 0 || behind.length === 0 || (bad.length === 0 && behind.every((x) => x.grade < BAD))) return;
  const keeps = bad.length > 0 && behind.every((x) => x.grade < BAD);
  set(
    'spread.unfiltered-worse',
    keeps,
    bad,
    keeps
      ? `damage keeps to what is fed before the filter; ${behind.length} places behind it are sound or nearly`
      : 'damage is found behind the filter as well',
  );
}

function bearingSpread(view: CaseView, set: Setter): void {
  const { examined, total } = bearings(view);
  const bad = examined.filter((b) => b.grade >= BAD);
  const badStations = bad.flatMap((b) => b.stations);
  const share = examined.length / Math.max(1, total);
  const names = bad.map((b) => b.stem).join(', ');
  if (share >= 0.6 && bad.length > 0 && total >= 3) {
    set(
      'spread.one-bearing',
      bad.length === 1,
      badStations,
      `${bad.length} of ${examined.length} examined bearings at grade 2 or more (${names})`,
    );
    const all = bad.length / examined.length;
    if (all >= 0.8 || all <= 0.5)
      set('spread.all-bearings', all >= 0.8, badStations, `${bad.length} of ${examined.length} examined bearings at grade 2 or more`);
    const route = oilRoute(view.layout);
    const owner = bad.find((b) => b.main && fedBy(route, b.stem).some((pin) => bad.some((x) => x.stem === pin)));
    const family = owner ? [owner.stem, ...fedBy(route, owner.stem)] : [];
    const fits = owner !== undefined && bad.every((b) => family.includes(b.stem)) && bad.length < examined.length;
    set(
      'spread.main-and-its-pins',
      fits,
      badStations,
      fits ? `damage keeps to ${family.join(', ')}` : 'damage does not keep to one main and the pins it feeds',
    );
  }
  unfilteredBranch(view, set);
  const along = examined.flatMap((b) => {
    const d = routeDistance(view.layout, b.of);
    return d === null ? [] : [{ d, g: b.grade }];
  });
  if (along.length >= 4 && bad.length > 0) {
    const r = correlation(
      along.map((a) => a.d),
      along.map((a) => a.g),
    );
    const words = `grade against distance along the oil route: correlation ${r.toFixed(2)} over ${along.length} bearings`;
    if (r >= 0.6 || r <= 0.3) set('spread.grows-along-route', r >= 0.6, badStations, words);
    if (r <= -0.6 || r >= -0.3) set('spread.fades-along-route', r <= -0.6, badStations, words);
  }
  const mains = examined.filter((b) => b.main);
  const rods = examined.filter((b) => !b.main);
  if (mains.length >= 2 && rods.length >= 2 && bad.length > 0) {
    const difference = mean(rods.map((b) => b.grade)) - mean(mains.map((b) => b.grade));
    const words = `big ends average grade ${mean(rods.map((b) => b.grade)).toFixed(1)}, mains ${mean(mains.map((b) => b.grade)).toFixed(1)}`;
    set('spread.rods-worse', difference >= 0.75, badStations, words);
    set('spread.mains-worse', difference <= -0.75, badStations, words);
    const badMain = mains.some((b) => b.grade >= BAD);
    const badRod = rods.some((b) => b.grade >= BAD);
    set('spread.mains-only', badMain && rods.every((b) => b.grade <= 1), badStations, words);
    set('spread.rods-only', badRod && mains.every((b) => b.grade <= 1), badStations, words);
  }
  const last = view.layout.mains;
  const ends = mains.filter((b) => b.number === 1 || b.number === last);
  const centre = mains.filter((b) => b.number > 1 && b.number < last);
  if (ends.length >= 1 && centre.length >= 1 && bad.length > 0) {
    const worst = Math.max(...centre.map((b) => b.grade));
    const end = Math.max(...ends.map((b) => b.grade));
    set(
      'spread.centre-mains',
      worst >= BAD && worst > end,
      centre.flatMap((b) => b.stations),
      `centre mains up to grade ${worst}, end mains up to ${end}`,
    );
  }
  if (view.layout.crankpins === 'shared' && rods.length >= 3 && bad.length > 0) {
    const pinOf = new Map(cylinderPlaces(view.layout).map((p) => [p.cylinder, pinNumber(view.layout, p)]));
    const badRods = rods.filter((b) => b.grade >= BAD);
    const onePin = badRods.length === 2 && pinOf.get(badRods[0]!.number) === pinOf.get(badRods[1]!.number);
    set('spread.two-on-one-pin', onePin, badStations, onePin ? 'both rods of one crankpin' : 'not the two rods of one crankpin alone');
  }
}

/** Edge a shell carries on, from its wear map. */
function edgeOf(station: StationView | undefined): 'front' | 'rear' | null {
  const wear = station?.charted ? station.summary : null;
  if (!wear || wear.edgeBias === null) return null;
  if (wear.edgeShare.front > 0.6) return 'front';
  return wear.edgeShare.rear > 0.6 ? 'rear' : null;
}

function halvesAndEdges(view: CaseView, set: Setter): void {
  const { examined } = bearings(view);
  const both = examined.filter((b) => b.upper !== null && b.lower !== null && b.grade >= BAD);
  if (both.length >= 2) {
    const ids = both.flatMap((b) => b.stations);
    const upper = both.filter((b) => (b.upper as number) > (b.lower as number)).length / both.length;
    const lower = both.filter((b) => (b.lower as number) > (b.upper as number)).length / both.length;
    set('spread.upper-halves', upper >= 0.6, ids, `upper half worse in ${(upper * 100).toFixed(0)} % of ${both.length} damaged bearings`);
    set('spread.lower-halves', lower >= 0.6, ids, `lower half worse in ${(lower * 100).toFixed(0)} % of ${both.length} damaged bearings`);
  }
  const marked = view.stations.filter((s) => s.station.part === 'shell' && s.charted && (standingGrade(s) ?? 0) >= BAD);
  if (marked.length >= 2) {
    const ids = marked.map((s) => s.station.id);
    const edges = marked.map(edgeOf);
    const front = edges.filter((e) => e === 'front').length / marked.length;
    const rear = edges.filter((e) => e === 'rear').length / marked.length;
    set(
      'spread.same-edge',
      Math.max(front, rear) >= 0.7,
      ids,
      `front edge on ${(front * 100).toFixed(0)} %, rear edge on ${(rear * 100).toFixed(0)} % of ${marked.length} drawn shells`,
    );
    const askew = examined.filter((b) => {
      const up = edgeOf(view.byId.get(`${b.stem}.shell.upper`));
      const low = edgeOf(view.byId.get(`${b.stem}.shell.lower`));
      return up !== null && low !== null && up !== low;
    });
    set(
      'spread.opposite-edges',
      askew.length > 0,
      askew.flatMap((b) => b.stations),
      askew.length > 0 ? `opposite edges at ${askew.map((b) => b.stem).join(', ')}` : 'no rod or main carries on opposite edges',
    );
  }
  for (const journal of view.stations) {
    if (journal.station.part !== 'journal' || !journal.summary || !journal.charted) continue;
    const stem = journal.station.bearing!;
    const shells = [view.byId.get(`${stem}.shell.upper`), view.byId.get(`${stem}.shell.lower`)];
    const round = shells.every((s) => s && isExamined(s) && s.summary && s.summary.arcShare > 0.6);
    const arc = journal.summary.arcShare;
    if (arc > 0.02 && shells.every((s) => s && isExamined(s) && s.summary))
      set(
        'spread.one-arc-journal',
        round && arc < 0.5,
        [journal.station.id, `${stem}.shell.upper`, `${stem}.shell.lower`],
        `journal marked over ${(arc * 100).toFixed(0)} % of its round`,
      );
  }
}

function pistonSpread(view: CaseView, set: Setter): void {
  const cylinders = new Map<number, { grade: number; ids: string[] }>();
  for (const s of view.stations) {
    if (s.station.part !== 'skirt') continue;
    const g = isExamined(s) ? standingGrade(s) : null;
    if (g === null) continue;
    const row = cylinders.get(s.station.cylinder) ?? { grade: 0, ids: [] };
    row.grade = Math.max(row.grade, g);
    row.ids.push(s.station.id);
    cylinders.set(s.station.cylinder, row);
  }
  const bad = [...cylinders.values()].filter((c) => c.grade >= BAD);
  if (cylinders.size >= 2 && cylinders.size / view.layout.cylinders >= 0.6 && bad.length > 0) {
    const ids = bad.flatMap((c) => c.ids);
    const words = `${bad.length} of ${cylinders.size} examined pistons scuffed`;
    set('spread.all-pistons', bad.length / cylinders.size >= 0.8, ids, words);
    set('spread.one-piston', bad.length === 1, ids, words);
  }
  const hurt = view.stations.filter((s) => s.station.cylinder > 0 && isExamined(s) && (standingGrade(s) ?? 0) >= BAD);
  const badMains = view.stations.some((s) => s.station.cylinder === 0 && s.station.part === 'shell' && (standingGrade(s) ?? 0) >= BAD);
  const looked = new Set(view.stations.filter((s) => s.station.cylinder > 0 && isExamined(s)).map((s) => s.station.cylinder));
  if (hurt.length > 0 && looked.size >= 2) {
    const which = new Set(hurt.map((s) => s.station.cylinder));
    set(
      'spread.one-cylinder',
      which.size === 1 && !badMains,
      hurt.map((s) => s.station.id),
      `damage in cylinder ${[...which].join(', ')}${badMains ? ' and at the mains' : ''}`,
    );
  }
  const chambers = view.stations.filter((s) => ['crown', 'bore'].includes(s.station.part) && isExamined(s));
  const badChambers = chambers.filter((s) => (standingGrade(s) ?? 0) >= BAD);
  if (new Set(chambers.map((s) => s.station.cylinder)).size >= 2 && badChambers.length > 0) {
    const along = new Map(cylinderPlaces(view.layout).map((p) => [p.cylinder, p]));
    const places = [...new Set(badChambers.map((s) => s.station.cylinder))].map((c) => along.get(c));
    const [a, b] = places;
    set(
      'spread.neighbour-bores',
      places.length === 2 && a?.bank === b?.bank && Math.abs((a?.along ?? 0) - (b?.along ?? 9)) === 1,
      badChambers.map((s) => s.station.id),
      `crowns or bores hurt in ${places.length} cylinder${places.length > 1 ? 's' : ''}`,
    );
  }
}

function wholeEngine(view: CaseView, set: Setter): void {
  const present = view.stations.filter((s) => s.state !== 'not-present');
  const graded = present.filter((s) => isExamined(s) && standingGrade(s) !== null);
  const bad = graded.filter((s) => (standingGrade(s) ?? 0) >= BAD);
  const of = (parts: readonly string[]): { share: number; worst: number; ids: string[] } => {
    const all = present.filter((s) => parts.includes(s.station.part));
    const seen = graded.filter((s) => parts.includes(s.station.part));
    return {
      share: seen.length / Math.max(1, all.length),
      worst: Math.max(0, ...seen.map((s) => standingGrade(s) ?? 0)),
      ids: seen.map((s) => s.station.id),
    };
  };
  const top = of(['skirt', 'bore', 'crown']);
  const bottom = of(['shell', 'rolling']);
  if (bottom.share >= 0.5 && top.share >= 0.25) {
    set(
      'spread.bearings-clean',
      top.worst >= BAD && bottom.worst <= 1,
      bottom.ids,
      `pistons and bores up to grade ${top.worst}, bearings up to ${bottom.worst}`,
    );
  }
  if (top.share >= 0.5 && bottom.share >= 0.25) {
    set(
      'spread.pistons-clean',
      bottom.worst >= BAD && top.worst <= 1,
      top.ids,
      `bearings up to grade ${bottom.worst}, pistons and bores up to ${top.worst}`,
    );
  }
  if (bad.length > 0)
    set(
      'spread.nothing-found',
      false,
      bad.map((s) => s.station.id),
      `${bad.length} places at grade 2 or more`,
    );
  else {
    const running = of(RUNNING_PARTS);
    if (running.share >= 0.6)
      set('spread.nothing-found', true, [], `${graded.length} of ${present.length} places examined, none at grade 2 or more`);
  }
}

function elsewhere(view: CaseView, set: Setter): void {
  const graded = view.stations.filter((s) => isExamined(s) && standingGrade(s) !== null);
  const worst = (parts: readonly string[]): { share: number; grade: number; ids: string[] } => {
    const all = view.stations.filter((s) => parts.includes(s.station.part) && s.state !== 'not-present');
    const seen = graded.filter((s) => parts.includes(s.station.part));
    return {
      share: seen.length / Math.max(1, all.length),
      grade: Math.max(0, ...seen.map((s) => standingGrade(s) ?? 0)),
      ids: seen.filter((s) => (standingGrade(s) ?? 0) >= BAD).map((s) => s.station.id),
    };
  };
  const gear = worst(['cam', 'valve', 'timing']);
  const rest = worst(['shell', 'rolling', 'skirt', 'bore']);
  if (gear.grade >= BAD && rest.share >= 0.4)
    set(
      'spread.top-end-only',
      rest.grade <= 1,
      gear.ids,
      `valve gear up to grade ${gear.grade}, bearings, skirts and bores up to ${rest.grade}`,
    );
  const sources = view.stations.filter((s) => showsFact(s, 'breaks up'));
  const carried = graded.filter((s) => s.station.part === 'shell' && !failedHere(s) && showsFact(s, 'carried'));
  if (sources.length > 0 && carried.length > 0)
    set(
      'spread.after-broken-part',
      true,
      [...sources, ...carried].map((s) => s.station.id),
      `${sources
        .map((s) => s.station.name.toLowerCase())
        .slice(0, 3)
        .join(', ')} shed metal, ${carried.length} shells carry its marks`,
    );
  const bad = graded.filter((s) => (standingGrade(s) ?? 0) >= BAD);
  const kinds = new Set(bad.map((s) => s.station.part));
  if (bad.length >= 3 && graded.length >= 8)
    set(
      'spread.scattered',
      kinds.size >= 4 && bad.every((s) => (standingGrade(s) ?? 0) <= 2),
      bad.map((s) => s.station.id),
      `${bad.length} places of ${kinds.size} kinds, up to grade ${Math.max(...bad.map((s) => standingGrade(s) ?? 0))}`,
    );
  hotEnd(view, set);
}

/** Do pistons get worse towards one end of the bank? */
function hotEnd(view: CaseView, set: Setter): void {
  const grade = new Map<number, number>();
  for (const s of view.stations)
    if (s.station.part === 'skirt' && isExamined(s)) {
      const g = standingGrade(s);
      if (g !== null) grade.set(s.station.cylinder, Math.max(grade.get(s.station.cylinder) ?? 0, g));
    }
  const along = cylinderPlaces(view.layout).flatMap((p) => {
    const g = grade.get(p.cylinder);
    return g === undefined ? [] : [{ d: p.along, g }];
  });
  if (along.length < 3 || !along.some((a) => a.g >= BAD)) return;
  const r = correlation(
    along.map((a) => a.d),
    along.map((a) => a.g),
  );
  set(
    'spread.hot-cylinders',
    Math.abs(r) >= 0.6,
    [],
    `piston grade along the bank: correlation ${r.toFixed(2)} over ${along.length} cylinders`,
  );
}
