import type { AnswerState } from '../entries/registry.js';
import { showsFact, type CaseView } from '../case/views.js';
import type { PatternFact } from '../damage/catalogue/record.js';
import type { Sourced } from '../ledger/state.js';
import type { EntryBodies } from '../entries/entries.js';
import { cause as causeOf } from '../cause/data/causes.js';
import type { Diagnosis } from './diagnose.js';
import { ANSWERABLE, type Answerable } from '../cause/types.js';

/** One corrective action or collateral check of a confirmed cause. */
export interface AnswerItem {
  readonly cause: string;
  readonly causeName: string;
  readonly part: 'action' | 'collateral';
  readonly item: string;
  readonly state: AnswerState;
  readonly note: string;
  readonly by: string | null;
}

/** Corrective actions and collateral checks of every confirmed cause, with how each stands. */
export function answerItems(view: CaseView): AnswerItem[] {
  const held = new Map(view.answers.map((a) => [`${a.value.cause}|${a.value.part}|${a.value.item}`, a]));
  return view.decisions
    .filter((d) => d.value.decision === 'confirmed')
    .flatMap((d) => {
      const c = causeOf(d.value.cause);
      if (!c) return [];
      const own = view.answers.filter((a) => a.value.cause === c.id).map((a) => [a.value.part, a.value.item] as const);
      const listed = [...c.actions.map((i) => ['action', i] as const), ...c.collateral.map((i) => ['collateral', i] as const)];
      const all = [...listed, ...own.filter(([part, item]) => !listed.some(([p, i]) => p === part && i === item))];
      return all.map(([part, item]): AnswerItem => {
        const a: Sourced<EntryBodies['answer-set']> | undefined = held.get(`${c.id}|${part}|${item}`);
        return {
          cause: c.id,
          causeName: c.name,
          part,
          item,
          state: a?.value.state ?? 'open',
          note: a?.value.note ?? '',
          by: a?.version.author.name ?? null,
        };
      });
    });
}

export interface ReleaseCheck {
  readonly ready: boolean;
  /** What stands in the way, one sentence each. */
  readonly blocks: readonly string[];
}

/** May the case be released? Not while a confirmed cause has no corrective action, a collateral check is open, or a finding is neither explained nor accepted by name. */
export function releaseCheck(view: CaseView, diagnosis: Diagnosis): ReleaseCheck {
  const blocks: string[] = [];
  const confirmed = view.decisions.filter((d) => d.value.decision === 'confirmed').map((d) => d.value.cause);
  if (confirmed.length === 0 && diagnosis.ending.kind !== 'no failure found')
    blocks.push('No cause is confirmed. Confirm one, or state in the conclusion that none was determined.');
  const items = answerItems(view);
  for (const id of confirmed) {
    const name = causeOf(id)?.name ?? id;
    const own = items.filter((i) => i.cause === id);
    if (!own.some((i) => i.part === 'action' && (i.state === 'planned' || i.state === 'done')))
      blocks.push(`${name}: no corrective action is planned or done.`);
    const open = own.filter((i) => i.part === 'collateral' && i.state === 'open');
    if (open.length > 0)
      blocks.push(
        `${name}: ${open.length} collateral check${open.length === 1 ? '' : 's'} open (${open
          .map((i) => i.item)
          .slice(0, 2)
          .join(', ')}).`,
      );
  }
  const left = diagnosis.unexplained.filter((u) => !view.unexplained.get(u.station)?.value.accepted);
  if (left.length > 0)
    blocks.push(
      `${left.length} finding${left.length === 1 ? ' is' : 's are'} neither explained nor accepted: ${left
        .slice(0, 3)
        .map((u) => u.name)
        .join(', ')}.`,
    );
  return { ready: blocks.length === 0, blocks };
}

export interface AnswerableShare {
  readonly who: Answerable;
  readonly probability: number;
  readonly evidence: readonly string[];
}

/** Who may be answerable, from the causes believed: kept apart from the cause, stated neutrally, never an accusation. */
export function answerability(diagnosis: Diagnosis): AnswerableShare[] {
  const shares = ANSWERABLE.map((who): AnswerableShare => {
    const causes = diagnosis.causes.filter((c) => causeOf(c.id)?.answerable === who);
    const none = causes.reduce((p, c) => p * (1 - Math.min(1, c.probability)), 1);
    return {
      who,
      probability: 1 - none,
      evidence: causes
        .filter((c) => c.probability >= 0.1)
        .flatMap((c) =>
          c.evidence
            .filter((e) => e.decibans >= 1)
            .slice(0, 3)
            .flatMap((e) => e.sources.slice(0, 1).map((s) => s.words)),
        ),
    };
  });
  const open = shares.filter((s) => s.who !== 'not determined').reduce((p, s) => p * (1 - s.probability), 1);
  return shares
    .map((s) => (s.who === 'not determined' ? { ...s, probability: open, evidence: [] } : s))
    .sort((a, b) => b.probability - a.probability);
}

export interface WarrantyLine {
  readonly what: string;
  readonly value: string;
  readonly recorded: boolean;
}

/** What a maker's desk asks for, with what the case holds of it. */
export function warrantyChecklist(view: CaseView): WarrantyLine[] {
  const line = (what: string, value: string): WarrantyLine => ({ what, value: value || 'not recorded', recorded: value !== '' });
  const pictures = view.photos.length + view.stations.reduce((sum, s) => sum + s.photos.length, 0);
  const check = (id: string): string =>
    [...view.checks.values()]
      .filter((c) => c.value.check === id && c.value.text !== '')
      .map((c) => c.value.text)
      .join(', ');
  const marks = view.buildMarks.map((b) => b.value.text).join('; ');
  const hours = view.history.find((h) => /\d[\d ,.]*\s*(hours?|h|km|miles?)\b/i.test(h.value.text))?.value.text ?? '';
  const showing = (fact: PatternFact): string =>
    view.stations
      .filter((s) => showsFact(s, fact))
      .map((s) => s.station.name)
      .slice(0, 6)
      .join(', ');
  return [
    line('Build date code and marks', marks),
    line('Hours or distance', hours),
    line('Oil found, quantity and look', [check('oil-level'), check('oil-look'), check('oil')].filter(Boolean).join('; ')),
    line('Dry areas', showing('dry')),
    line('Metal transfer', showing('metal across')),
    line('Colour by heat', showing('coloured by heat')),
    line('Photographs by number', pictures > 0 ? `${pictures} in the case` : ''),
  ];
}
