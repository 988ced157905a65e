import { diagnose, rangeWord, type Diagnosis } from '../cause/diagnose.js';
import { answerItems, releaseCheck, warrantyChecklist } from '../cause/answers.js';
import { cause } from '../cause/data/causes.js';
import { firstStartProcedure } from '../cause/firstStart.js';
import { sequenceShapes, type Shape } from '../cause/sequence/drawing.js';
import { placeSequence } from '../cause/sequence/layout.js';
import { proposeSequence } from '../cause/sequence/propose.js';
import { percentText } from '../cause/percent.js';
import { standingDispositions } from '../salvage/dispositions.js';
import { machineSheet } from '../salvage/machineSheet.js';
import { OPERATION_NAMES } from '../salvage/operations.js';
import { gradeText, WEAR_CLASS_INFO, WEAR_CLASSES } from '../damage/classes.js';
import { GRADE_BOOK } from '../damage/gradeBook.js';
import { pattern } from '../damage/patterns.js';
import type { WearMap } from '../damage/wearMap.js';
import { PART_NAMES, type SurfaceFrame } from '../engine/stations.js';
import { coverage, isExamined, standingGrade, type CaseView, type StationView } from '../ledger/views.js';
import { measuredPlaces, placeReadings, specOfPlace } from '../measure/program/caseMeasure.js';
import type { Cell } from '../measure/program/cells.js';
import type { PlaceOutcome } from '../measure/program/outcome.js';
import { cellText } from '../measure/program/readCell.js';
import { lineText } from '../measure/sheets/line.js';
import { checksFor } from '../opening/checks.js';
import { stripStanding } from '../strip/state.js';

export type ReportBlock =
  | { readonly kind: 'text'; readonly text: string; readonly strong?: boolean }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | {
      readonly kind: 'table';
      readonly head: readonly string[];
      readonly rows: ReadonlyArray<readonly string[]>;
      readonly figures?: readonly number[];
    }
  | { readonly kind: 'photo'; readonly number: number; readonly sha256: string; readonly caption: string; readonly standIn: boolean }
  | { readonly kind: 'wear'; readonly station: string; readonly map: WearMap; readonly frame: SurfaceFrame; readonly caption: string }
  | {
      readonly kind: 'sequence';
      readonly shapes: readonly Shape[];
      readonly width: number;
      readonly height: number;
      readonly caption: string;
    }
  | { readonly kind: 'plan' };

export interface ReportSection {
  readonly id: string;
  readonly heading: string;
  readonly blocks: readonly ReportBlock[];
}

/** The report as data; screen, print and PDF draw the same sections. */
export interface ReportModel {
  readonly title: string;
  readonly number: string;
  readonly reference: string;
  readonly ledgerHead: string;
  readonly entries: number;
  readonly sections: readonly ReportSection[];
}

export const STANDING_STATEMENT =
  'This account states what was seen and measured on the parts named in it. The work defers to the engine maker’s data, to local codes and to licensed practice; ' +
  'where these differ from this account, they apply. Suggestions of cause are weighed by stated rules and confirmed or overruled by the builder.';

export const CONFIDENCE_WORDS =
  'Practically certain: 90 % or more. Probable: 70 to 90 %. Possible: 40 to 70 %. Less likely: 10 to 40 %. Unlikely: under 10 %.';

/** Dominant class colour of every cell; null where the cell was not seen. Row 0 is v = 0. */
export function cellColours(map: WearMap): Array<string | null> {
  return Array.from(map.seen, (seen, cell) => {
    if (seen < 0.25) return null;
    let best: (typeof WEAR_CLASSES)[number] = 'sound';
    let most = 0;
    for (const c of WEAR_CLASSES) {
      // Damage shows in small as soon as it holds a quarter of the cell, or the pattern across an engine would be lost.
      const share = (map.shares[c][cell] as number) * (c === 'sound' ? 0.33 : 1);
      if (share > most) {
        most = share;
        best = c;
      }
    }
    return WEAR_CLASS_INFO[best].colour;
  });
}

const orDash = (text: string): string => (text.trim() === '' ? '–' : text);

export const COMPLAINTS: Readonly<Record<string, string>> = {
  knock: 'Knock',
  seized: 'Seized',
  'low-pressure': 'Low oil pressure',
  smoke: 'Smoke',
  'loss-of-power': 'Loss of power',
  overheating: 'Overheating',
  'metal-in-oil': 'Metal in oil',
  'oil-level-rising': 'Oil level rising',
  'oil-level-falling': 'Oil level falling',
  leak: 'Leak',
  'no-start': 'Does not start',
  'noise-after-repair': 'Noise after repair',
  none: 'None, planned inspection',
};
export const ONSETS: Readonly<Record<string, string>> = {
  sudden: 'Sudden',
  gradual: 'Gradual',
  'after-work': 'After work on the engine',
  'after-start-up': 'After start-up',
};
export const COMPLAINT_PLACES: Readonly<Record<string, string>> = {
  top: 'Top',
  bottom: 'Bottom',
  front: 'Front end',
  rear: 'Flywheel end',
  'one-cylinder': 'One cylinder',
  everywhere: 'Everywhere',
};
export const COMPLAINT_WHENS: Readonly<Record<string, string>> = {
  cold: 'Cold',
  hot: 'Hot',
  load: 'Under load',
  idle: 'At idle',
  always: 'Always',
};
export const SMOKES: Readonly<Record<string, string>> = { blue: 'Blue', white: 'White', black: 'Black' };
export const FAMILY_EXPERIENCE: Readonly<Record<string, string>> = {
  none: 'None: no pattern experience of this engine family is held',
  some: 'Some: seen before in this shop',
  held: 'Known: many seen in this shop',
};
export const AFTER_SIGNS: Readonly<Record<string, string>> = {
  stopped: 'Stopped at once',
  'driven-on': 'Run on',
  restarted: 'Stopped, then restarted',
  unknown: 'Not known',
};
export const QUESTION_OWNERS: Readonly<Record<string, string>> = {
  private: 'Private client',
  warranty: 'Maker’s warranty',
  insurer: 'Insurer',
  own: 'Own engine',
  inspection: 'Planned inspection',
};

function coded(table: Readonly<Record<string, string>>, value: string): string {
  return orDash(
    value
      .split(',')
      .map((v) => table[v] ?? v)
      .filter(Boolean)
      .join(', '),
  );
}

/** Builds the report from a case. `entries` and `ledgerHead` identify the ledger it was made from. */
export function reportModel(view: CaseView, ledgerHead: string, entries: number): ReportModel {
  const d = diagnose(view);
  const numbering = new Map<string, number>();
  for (const s of view.stations)
    for (const p of s.photos) if (!numbering.has(p.value.sha256)) numbering.set(p.value.sha256, numbering.size + 1);
  return {
    title: view.title,
    number: view.number,
    reference: view.intake('reference'),
    ledgerHead,
    entries,
    sections: [
      question(view),
      opening(view),
      examined(view),
      findings(view, numbering),
      sheets(view),
      causes(view, d),
      sequence(view, d),
      ...answers(view, d),
      ...decided(view),
      conclusion(view, d),
      method(view, d, ledgerHead, entries),
    ],
  };
}

/** A row that is left out when nothing was entered. */
function optionalRow(name: string, parts: readonly string[]): string[][] {
  const said = parts.filter((p) => p !== '' && p !== '–');
  return said.length > 0 ? [[name, said.join('; ')]] : [];
}

function question(view: CaseView): ReportSection {
  const l = view.layout;
  return {
    id: 'question',
    heading: 'Question and engine',
    blocks: [
      {
        kind: 'table',
        head: ['', ''],
        rows: [
          ['Question owner', coded(QUESTION_OWNERS, view.intake('questionOwner'))],
          ['Question asked', orDash(view.intake('question'))],
          ['Complaint', coded(COMPLAINTS, view.intake('complaint'))],
          ['In the client’s words', orDash(view.intake('complaintWords'))],
          ...optionalRow('Where and when', [
            coded(COMPLAINT_PLACES, view.intake('complaintPlace')),
            coded(COMPLAINT_WHENS, view.intake('complaintWhen')),
          ]),
          ...optionalRow('Smoke', [coded(SMOKES, view.intake('smokeColour'))]),
          ['Onset', coded(ONSETS, view.intake('onset'))],
          [
            'After the first sign',
            [coded(AFTER_SIGNS, view.intake('afterFirstSign')), view.intake('ranOnFor')].filter((x) => x !== '').join(', '),
          ],
          ['Received', orDash(view.intake('received'))],
          ...optionalRow('Opened by', [view.intake('openedBy')]),
          ...optionalRow('Evidence held by', [view.intake('evidenceHolder')]),
          ...optionalRow('Experience of this family', [coded(FAMILY_EXPERIENCE, view.intake('familyExperience'))]),
          [
            'Engine',
            `${l.cylinders} cylinder${l.cylinders > 1 ? 's' : ''}, ${l.arrangement}, ${l.cycle}, ${l.fuel}; bore ${l.boreMm} mm, stroke ${l.strokeMm} mm, ${l.mains} mains, firing order ${l.firingOrder.join('-')}`,
          ],
        ],
      },
      { kind: 'plan' },
      ...(view.history.length > 0
        ? [
            {
              kind: 'table' as const,
              head: ['History', 'How we know', 'Date'],
              rows: view.history.map((h) => [
                h.value.text,
                { told: 'told to us', seen: 'seen by us', measured: 'measured by us' }[h.value.reliability],
                h.value.date ?? '–',
              ]),
            },
          ]
        : [{ kind: 'text' as const, text: 'No history was given.' }]),
      ...custody(view),
    ],
  };
}

function custody(view: CaseView): ReportBlock[] {
  const blocks: ReportBlock[] = [];
  if (view.received.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Received', 'How it came', 'By'],
      rows: view.received.map(({ value: r }) => [r.text, r.state.replace('-', ' '), orDash(r.by)]),
    });
  if (view.buildMarks.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Build marks', 'Points to'],
      rows: view.buildMarks.map(({ value: m }) => [m.text, m.pointsTo.replace('-', ' ')]),
    });
  if (view.questions.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Questions', 'To', 'Answer'],
      rows: view.questions.map(({ value: q }) => [
        q.text,
        q.to.replace('-', ' '),
        q.answer === null ? 'open' : `${q.answer} (${q.answeredOn ?? ''})`,
      ]),
    });
  return blocks;
}

/** The checks before opening and what the strip recorded or passed over. */
function opening(view: CaseView): ReportSection {
  const blocks: ReportBlock[] = [];
  const rows = checksFor(view.layout).flatMap((c) =>
    c.fields.flatMap((f) => {
      const said = [...view.checks.values()].filter(
        (a) => a.value.check === c.id && (a.value.field === f.id || a.value.field.startsWith(`${f.id}.`)) && a.value.text !== '',
      );
      if (said.length === 0) return [];
      const each = said.map(({ value: a }) => {
        const place = a.field.split('.')[1];
        const bare = a.unit && !/[a-z%"″]/i.test(a.text) ? `${a.text} ${a.unit}` : a.text;
        return place ? `${f.per === 'turn' ? `${(Number(place) - 1) * 30}°` : place}: ${bare}` : bare;
      });
      return [[c.name, f.label, each.join('; ')]];
    }),
  );
  blocks.push(
    rows.length > 0
      ? { kind: 'table', head: ['Before opening', '', 'Found'], rows }
      : { kind: 'text', text: 'No check was made before opening.' },
  );
  const standing = stripStanding(view);
  const done = standing.steps.filter((s) => s.done).length;
  if (done > 0) blocks.push({ kind: 'text', text: `Strip: ${done} of ${standing.steps.length} steps were done.` });
  if (standing.lost.length > 0)
    blocks.push(
      { kind: 'text', text: 'Not recorded before it was gone', strong: true },
      {
        kind: 'list',
        items: standing.lost.map(
          (i) => `${i.name}${view.strip.holds.get(i.id)?.value.note ? `: ${view.strip.holds.get(i.id)!.value.note}` : ''}`,
        ),
      },
    );
  const torque = standing.plan.steps.flatMap((s) => {
    const read = view.strip.bolts.filter((b) => b.value.pattern === s.pattern?.id && b.value.newtonMetre !== null);
    return s.pattern && read.length > 0
      ? [[s.pattern.name, read.map((b) => `${b.value.position}: ${b.value.text} ${b.value.unit}`).join(', ')]]
      : [];
  });
  if (torque.length > 0) blocks.push({ kind: 'table', head: ['Break-loose torque', 'By position'], rows: torque });
  const expected = view.strip.expectations.map(
    ({ value: e }) => `${e.text}: ${e.held === null ? 'not settled' : e.held ? 'held' : 'did not hold'}`,
  );
  if (expected.length > 0) blocks.push({ kind: 'text', text: 'Expected before looking', strong: true }, { kind: 'list', items: expected });
  return { id: 'opening', heading: 'Before opening and strip', blocks };
}

function examined(view: CaseView): ReportSection {
  const c = coverage(view);
  const not = view.stations.filter((s) => !isExamined(s));
  const words: Readonly<Record<string, string>> = {
    'not-examined': 'not examined',
    'before-us': 'altered or missing before it came to us',
    lost: 'lost during the strip',
    'not-present': 'not present',
  };
  const groups = new Map<string, string[]>();
  for (const s of not) groups.set(words[s.state] ?? s.state, [...(groups.get(words[s.state] ?? s.state) ?? []), s.station.name]);
  return {
    id: 'examined',
    heading: 'What was and was not examined',
    blocks: [
      { kind: 'text', text: `${c.examined} of ${c.total} places (${percentText(c.examined / Math.max(1, c.total))}) were examined.` },
      {
        kind: 'table',
        head: ['Part', 'Examined', 'Of'],
        rows: c.byPart.map((p) => [PART_NAMES[p.part], String(p.examined), String(p.total)]),
        figures: [1, 2],
      },
      ...[...groups].map(([word, names]): ReportBlock => ({
        kind: 'text',
        text: `${word[0]?.toUpperCase()}${word.slice(1)}: ${names.join(', ')}.`,
      })),
    ],
  };
}

function findingWords(s: StationView): string {
  const grade = standingGrade(s);
  const parts: string[] = [];
  if (grade !== null) parts.push(`${gradeText(grade)}${s.grade ? '' : ' (proposed)'}`);
  const present = s.patterns.filter((p) => p.value.present).map((p) => pattern(p.value.pattern)?.name.toLowerCase());
  if (present.length > 0) parts.push(present.join(', '));
  if (s.proposal) parts.push(s.proposal.reason.split(' → ')[0] ?? '');
  const absent = s.patterns.filter((p) => !p.value.present).map((p) => pattern(p.value.pattern)?.name.toLowerCase());
  if (absent.length > 0) parts.push(`looked for, not there: ${absent.join(', ')}`);
  if (s.grade?.value.reason) parts.push(`builder’s reason: ${s.grade.value.reason}`);
  return parts.join('; ');
}

function findings(view: CaseView, numbering: ReadonlyMap<string, number>): ReportSection {
  const blocks: ReportBlock[] = [];
  const withPhotos = view.report('includePhotos') !== 'no';
  const hurt = view.stations.filter((s) => s.state === 'findings').sort((a, b) => (standingGrade(b) ?? 0) - (standingGrade(a) ?? 0));
  if (hurt.length === 0) blocks.push({ kind: 'text', text: 'No findings were recorded.' });
  for (const s of hurt) {
    blocks.push(
      { kind: 'text', text: s.station.name, strong: true },
      { kind: 'text', text: findingWords(s) || 'Marked as a finding, not graded.' },
    );
    for (const r of s.remarks) blocks.push({ kind: 'text', text: `Remark by ${r.version.author.name}: ${r.value.text}` });
    if (withPhotos)
      for (const p of s.photos)
        blocks.push({
          kind: 'photo',
          number: numbering.get(p.value.sha256) ?? 0,
          sha256: p.value.sha256,
          caption: s.station.name,
          standIn: p.value.standIn,
        });
    if (s.wear && s.station.surface && s.charted) {
      const shares = WEAR_CLASSES.filter((c) => c !== 'sound' && (s.summary?.percent[c] ?? 0) >= 0.1).map(
        (c) => `${WEAR_CLASS_INFO[c].name.toLowerCase()} ${(s.summary?.percent[c] ?? 0).toFixed(1)} %`,
      );
      blocks.push({
        kind: 'wear',
        station: s.station.id,
        map: s.wear,
        frame: s.station.surface,
        caption: `${s.station.name}, developed: ${shares.join(', ') || 'lines only'}; ${s.station.surface.vFrom} below`,
      });
    }
  }
  const sound = view.stations.filter((s) => s.state === 'sound');
  if (sound.length > 0)
    blocks.push(
      { kind: 'text', text: 'Examined, nothing found', strong: true },
      { kind: 'text', text: `${sound.map((s) => s.station.name).join(', ')}.` },
    );
  return { id: 'findings', heading: 'Findings', blocks };
}

/** Readings of a sheet as a table: rows and columns where the cells make one, else name and figure. */
function readingTable(m: PlaceOutcome): ReportBlock {
  const cells = m.place.cells.filter((c) => m.values.has(c.key));
  const text = (c: Cell): string => cellText(c, m.values.get(c.key)!);
  const rows = [...new Set(cells.map((c) => c.row))];
  if (rows.length < 2 && rows[0] === '')
    return { kind: 'table', head: ['Place', 'Reading'], rows: cells.map((c) => [c.name, text(c)]), figures: [1] };
  const columns = [...new Set(cells.map((c) => c.column))];
  return {
    kind: 'table',
    head: ['', ...columns],
    rows: rows.map((row) => [
      row,
      ...columns.map((column) => {
        const c = cells.find((x) => x.row === row && x.column === column);
        return c ? text(c) : '';
      }),
    ]),
    figures: columns.map((_, k) => k + 1),
  };
}

function sheets(view: CaseView): ReportSection {
  const blocks: ReportBlock[] = [];
  for (const m of measuredPlaces(view)) {
    blocks.push({ kind: 'text', text: m.place.name, strong: true }, readingTable(m));
    if (m.outcome && m.outcome.lines.length > 0)
      blocks.push({
        kind: 'table',
        head: ['Result', 'Value ± U (k = 2)', 'Where', 'Verdict', 'Reason'],
        rows: m.outcome.lines.map((l) => [
          l.name,
          lineText(l),
          l.at,
          l.verdict ? `${l.verdict.word} (${l.verdict.reference})` : '–',
          l.verdict?.reason ?? '',
        ]),
        figures: [1],
      });
    for (const says of m.outcome?.says ?? []) blocks.push({ kind: 'text', text: says });
    const missing = [...m.waiting, ...(m.outcome?.missing ?? [])];
    if (missing.length > 0) blocks.push({ kind: 'text', text: `Not read: ${missing.join('; ')}.` });
    const readings = placeReadings(view, m.place).map((r) => r.value);
    const gauges = [...new Map(readings.map((r) => [r.gauge.id, r.gauge])).values()];
    const spec = specOfPlace(view, m.place);
    const typed = readings.filter((r) => !['mm', 'N', 'bar', '°', '°C', 's', 'kPa'].includes(r.unit));
    blocks.push({
      kind: 'text',
      text: [
        `Gauges: ${gauges.map((g) => `${g.name}, resolution ${g.resolutionMm} mm, U ${g.expandedUncertaintyMm} mm`).join('; ')}.`,
        spec ? `Limits: ${spec.source || 'source not stated'}.` : 'No specification was entered: only rules of thumb are held against it.',
        ...(typed.length > 0 ? [`Typed in other units: ${typed.map((r) => r.text).join(', ')}.`] : []),
        ...m.questions,
      ].join(' '),
    });
  }
  if (blocks.length === 0) blocks.push({ kind: 'text', text: 'Nothing was measured.' });
  return { id: 'sheets', heading: 'Measurements', blocks };
}

function causes(view: CaseView, d: Diagnosis): ReportSection {
  const blocks: ReportBlock[] = [{ kind: 'text', text: `Ending: ${d.ending.kind}. ${d.ending.sentence}`, strong: true }];
  const decided = new Map(view.decisions.map((x) => [x.value.cause, x.value]));
  blocks.push({
    kind: 'table',
    head: ['Cause', 'Probability', 'Word', 'Builder'],
    rows: d.causes.slice(0, 6).map((c) => {
      const own = decided.get(c.id);
      const place = c.places[0] && c.places[0].probability > 0.5 ? ` (${c.places[0].name})` : '';
      return [
        c.name + place,
        percentText(c.probability),
        c.range,
        own && own.decision !== 'open' ? `${own.decision}${own.reason ? `: ${own.reason}` : ''}` : '–',
      ];
    }),
    figures: [1],
  });
  const lead = d.causes[0];
  if (lead) {
    const side = (present: boolean): string[] =>
      lead.evidence
        .filter((e) => e.decibans > 0 === present)
        .slice(0, 8)
        .map(
          (e) =>
            `${e.name}${e.present ? '' : ': looked for, not there'} (${Math.abs(e.decibans).toFixed(1)} decibans) – ${e.sources
              .map((s) => s.words)
              .slice(0, 3)
              .join('; ')}`,
        );
    blocks.push(
      { kind: 'text', text: `For ${lead.name.toLowerCase()}, against its nearest rival`, strong: true },
      { kind: 'list', items: side(true).length > 0 ? side(true) : ['Nothing.'] },
    );
    blocks.push(
      { kind: 'text', text: 'Against it', strong: true },
      { kind: 'list', items: side(false).length > 0 ? side(false) : ['Nothing.'] },
    );
  }
  const alternatives = d.causes.slice(1, 4).map((c) => {
    const against = c.evidence.filter((e) => e.decibans < 0)[0];
    return `${c.name} (${percentText(c.probability)}): ${against ? `weakest point: ${against.name.toLowerCase()}${against.present ? '' : ' was looked for and not there'}` : 'nothing speaks against it'}. ${cause(c.id)?.doesNot ?? ''}`;
  });
  blocks.push({ kind: 'text', text: 'Alternatives considered', strong: true }, { kind: 'list', items: alternatives });
  blocks.push(
    { kind: 'text', text: 'Left unexplained', strong: true },
    {
      kind: 'list',
      items:
        d.unexplained.length > 0 ? d.unexplained.map((u) => `${u.name}, grade ${u.grade}: ${u.why}`) : ['No finding of grade 2 or more.'],
    },
  );
  const check = d.nextChecks[0];
  if (check)
    blocks.push({
      kind: 'text',
      text: `The check that would tell most: ${check.step.toLowerCase()} for "${check.name.toLowerCase()}" (about ${check.minutes} min). If found: ${check.ifFound.cause.toLowerCase()} ${percentText(check.ifFound.before)} → ${percentText(check.ifFound.after)}; if not: ${check.ifNot.cause.toLowerCase()} ${percentText(check.ifNot.before)} → ${percentText(check.ifNot.after)}.`,
    });
  if (d.turningPoint)
    blocks.push({
      kind: 'text',
      text: `If "${d.turningPoint.name.toLowerCase()}" proved to be the other way round, ${d.turningPoint.wouldLead.toLowerCase()} would lead (${percentText(d.turningPoint.probability)}).`,
    });
  return { id: 'causes', heading: 'Causes', blocks };
}

/** The order of events as a drawing and in words, with what stands against it. */
function sequence(view: CaseView, d: Diagnosis): ReportSection {
  const events = proposeSequence(view, d);
  const name = new Map(events.nodes.map((n) => [n.id, n.where ? `${n.name} (${n.where})` : n.name]));
  const blocks: ReportBlock[] = [];
  if (events.links.length === 0) blocks.push({ kind: 'text', text: 'No order of events follows from what was found.' });
  else {
    const placed = placeSequence(events);
    blocks.push({
      kind: 'sequence',
      shapes: sequenceShapes(placed, new Set(events.contradictions.map((c) => c.on))),
      width: placed.width,
      height: placed.height,
      caption: `Order of events, origins at the left; dotted where in doubt. ${events.explained} of ${events.of} findings of grade 2 or more follow from an origin.`,
    });
    blocks.push({
      kind: 'list',
      items: events.links.map(
        (l) =>
          `${name.get(l.from)} → ${name.get(l.to)}${l.doubtful ? ' (in doubt)' : ''}${l.source === 'builder' ? `; drawn by the builder${l.why ? `: ${l.why}` : ''}` : ''}`,
      ),
    });
  }
  if (events.contradictions.length > 0)
    blocks.push(
      { kind: 'text', text: 'Against this order', strong: true },
      { kind: 'list', items: events.contradictions.map((c) => c.words) },
    );
  if (events.rejected.length > 0)
    blocks.push(
      { kind: 'text', text: 'Links considered and rejected', strong: true },
      { kind: 'list', items: events.rejected.map((r) => `${name.get(r.from) ?? r.from} → ${name.get(r.to) ?? r.to}: ${r.reason}`) },
    );
  return { id: 'sequence', heading: 'Order of events', blocks };
}

/** Corrective actions and collateral checks of the confirmed causes, answerability, and for a maker what his desk asks for. */
function answers(view: CaseView, d: Diagnosis): ReportSection[] {
  const items = answerItems(view);
  const blocks: ReportBlock[] = [];
  if (items.length > 0)
    blocks.push({
      kind: 'table',
      head: ['Cause', 'What is to be done', 'State', 'Note'],
      rows: items.map((i) => [i.causeName, `${i.part === 'action' ? '' : 'Check: '}${i.item}`, i.state.replace('-', ' '), i.note]),
    });
  const who = view.answerable?.value;
  if (who)
    blocks.push({
      kind: 'text',
      text: `Answerability, stated apart from the cause and without finding fault: ${who.who}. ${who.reason}`,
    });
  if (view.intake('questionOwner') === 'warranty')
    blocks.push(
      { kind: 'text', text: 'For the maker', strong: true },
      { kind: 'table', head: ['Asked for', 'Recorded'], rows: warrantyChecklist(view).map((w) => [w.what, w.value]) },
    );
  const accepted = d.unexplained.filter((u) => view.unexplained.get(u.station)?.value.accepted);
  if (accepted.length > 0)
    blocks.push(
      { kind: 'text', text: 'Accepted as unexplained', strong: true },
      {
        kind: 'list',
        items: accepted.map((u) => {
          const held = view.unexplained.get(u.station)!;
          return `${u.name}, grade ${u.grade}: ${held.value.reason} (${held.version.author.name})`;
        }),
      },
    );
  const confirmed = view.decisions.filter((x) => x.value.decision === 'confirmed').map((x) => x.value.cause);
  if (items.length > 0)
    blocks.push(
      { kind: 'text', text: 'First start', strong: true },
      {
        kind: 'list',
        items: firstStartProcedure(view.layout, confirmed).map((s) => (s.caution ? `${s.what} Caution: ${s.caution}` : s.what)),
      },
    );
  if (view.released)
    blocks.push({
      kind: 'text',
      text: `Released by ${view.released.version.author.name} on ${view.released.version.time.slice(0, 10)}.${view.released.value.note ? ` ${view.released.value.note}` : ''}${releaseCheck(view, d).ready ? '' : ' What was recorded since stands against it.'}`,
    });
  return blocks.length > 0 ? [{ id: 'answers', heading: 'What answers it', blocks }] : [];
}

/** What becomes of the parts, what goes to the machine shop, and what was promised. */
function decided(view: CaseView): ReportSection[] {
  const dispositions = standingDispositions(view);
  const confirmed = dispositions.filter((x) => x.confirmed);
  if (confirmed.length === 0 && view.quotes.length === 0) return [];
  const blocks: ReportBlock[] = [];
  if (confirmed.length > 0) {
    blocks.push({
      kind: 'table',
      head: ['Part', 'What becomes of it', 'Size', 'Reason'],
      rows: confirmed.map((x) => [x.name, OPERATION_NAMES[x.operation], x.size, x.reason]),
    });
    const sheet = machineSheet(view, confirmed);
    if (sheet.length > 0)
      blocks.push(
        { kind: 'text', text: 'Machine shop', strong: true },
        {
          kind: 'table',
          head: ['Part', 'Work', 'Size to, mm', 'Finish and limits', 'Qty'],
          rows: sheet.map((l) => [
            l.part,
            l.operation,
            l.sizeMm ? `${l.sizeMm[0].toFixed(3)} to ${l.sizeMm[1].toFixed(3)}` : '–',
            [l.finish, l.limits].filter(Boolean).join('; '),
            String(l.quantity),
          ]),
          figures: [4],
        },
      );
  }
  for (const { value: q, version } of view.quotes)
    blocks.push({
      kind: 'text',
      text: `Quoted ${version.time.slice(0, 10)} for the route “${q.route.replace('-', ' ')}”: ${q.cost.toFixed(0)} ${q.currency} as likely as not to be enough, ${q.costHigh.toFixed(0)} in nine cases of ten; ${q.days.toFixed(0)} to ${q.daysHigh.toFixed(0)} days.`,
    });
  return [{ id: 'decided', heading: 'What is to be done', blocks }];
}

function conclusion(view: CaseView, d: Diagnosis): ReportSection {
  const first = view.intake('firstImpression');
  const lead = d.causes[0];
  const confirmed = view.decisions.filter((x) => x.value.decision === 'confirmed');
  const blocks: ReportBlock[] = [
    { kind: 'text', text: view.report('conclusion') || 'No conclusion has been written yet.' },
    {
      kind: 'text',
      text: `First impression at intake: ${first && first !== 'none-yet' ? (cause(first)?.name ?? first) : 'none stated'}. Leading now: ${lead ? `${lead.name} (${percentText(lead.probability)}, ${rangeWord(lead.probability)})` : 'none'}.`,
    },
  ];
  for (const c of confirmed) {
    const record = cause(c.value.cause);
    if (record)
      blocks.push(
        { kind: 'text', text: `${record.name}: corrective actions and collateral to check`, strong: true },
        { kind: 'list', items: [...record.actions, ...record.collateral.map((x) => `Check: ${x}`)] },
      );
  }
  if (view.report('actions')) blocks.push({ kind: 'text', text: view.report('actions') });
  return { id: 'conclusion', heading: 'Conclusion', blocks };
}

function method(view: CaseView, d: Diagnosis, head: string, entries: number): ReportSection {
  const stand = view.stations.some((s) => s.photos.some((p) => p.value.standIn));
  return {
    id: 'standing',
    heading: 'Method and standing',
    blocks: [
      {
        kind: 'text',
        text: `Grades by grade book ${GRADE_BOOK.version}; causes by cause table ${d.table}, exact over all sets of up to three causes. Verdicts are guard-banded: a value nearer to its limit than its uncertainty (U, k = 2) is too close to call.`,
      },
      { kind: 'text', text: CONFIDENCE_WORDS },
      ...(stand
        ? [
            {
              kind: 'text' as const,
              text: 'Pictures marked “rendered stand-in” were drawn by the application for demonstration; they are not photographs.',
            },
          ]
        : []),
      { kind: 'text', text: STANDING_STATEMENT },
      { kind: 'text', text: `Ledger: ${entries} entries, head ${head}.` },
    ],
  };
}
