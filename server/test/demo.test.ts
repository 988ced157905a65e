import { emptyCase } from '@true-ledger/core/ledger';
import { applyEntry } from '@true-ledger/core/entries';
import { caseView, type CaseView } from '@true-ledger/core/case';
import { diagnose, releaseCheck } from '@true-ledger/core/diagnosis';
import { reportModel } from '@true-ledger/core/report';
import { checkEntry } from '@true-ledger/core/gate';
import type { DemoCase } from '../src/demo/caseScript.js';
import { pastCases } from '../src/demo/cases/past.js';
import { demoCases } from '../src/demo/scenario.js';

/** A demo case as the ledger would hold it, pictures left out; every entry passes the checks of the server. */
function told({ steps }: DemoCase): CaseView {
  let state = emptyCase('00000000-0000-4000-8000-000000000000');
  const current = new Map<string, string>();
  for (const step of steps) {
    if (step.kind !== 'entry') continue;
    const { draft } = step;
    const checked = checkEntry(draft.kind, draft.station, draft.body, state);
    if (!checked.ok) throw new Error(`${draft.kind} ${draft.station}: ${checked.problem.sentence}`);
    const entry = {
      ...draft,
      body: checked.value,
      author: { id: 'a', name: 'A' },
      time: '2026-11-20T08:00:00Z',
      seq: state.seq + 1,
      hash: 'f'.repeat(64),
    };
    state = applyEntry(state, entry);
    current.set(draft.id, draft.kind);
  }
  return caseView(state)!;
}

describe('the past cases', () => {
  it('are forty small ones and two strips of one ferry, each passes every check, and most have an outcome', () => {
    const views = pastCases().map(told);
    expect(views).toHaveLength(42);
    expect(views.filter((v) => v.outcomes.length > 0).length).toBeGreaterThan(30);
    expect(views.every((v) => v.shelved?.value.as === 'archived')).toBe(true);
  });
});

describe('the demo scenario', () => {
  const cases = new Map(demoCases().map((c) => [c.number, c]));
  it('holds a dozen cases, three and more of them signed', () => {
    expect(cases.size).toBe(12);
    expect([...cases.values()].filter((c) => c.steps.some((s) => s.kind === 'sign')).length).toBeGreaterThanOrEqual(3);
  });
  it.each([...cases.keys()])('%s passes every check and its account flags nothing', (number) => {
    const view = told(cases.get(number)!);
    expect(reportModel(view, 'f'.repeat(64), 1).flags).toEqual([]);
  });
  it.each([
    ['2026-D01', ['local-feed']],
    ['2026-D02', ['foreign-debris']],
    ['2026-D05', ['coolant-lost', 'oil-low']],
    ['2026-D06', ['lugging']],
    ['2026-D08', ['bore-form']],
    ['2026-D11', ['cam-hardening', 'own-debris']],
  ])('%s leads to %j', (number, causes) => {
    const d = diagnose(told(cases.get(number)!));
    expect(
      d.causes
        .slice(0, causes.length)
        .map((c) => c.id)
        .sort(),
    ).toEqual([...causes].sort());
  });
  it.each([
    ['2026-D03', /no failure|nothing/i],
    ['2026-D07', /not determined/i],
  ])('%s ends %s', (number, words) => {
    const { ending } = diagnose(told(cases.get(number)!));
    expect(`${ending.kind} ${ending.sentence}`).toMatch(words);
  });
  it('overturns the first impression of the tractor', () => {
    const view = told(cases.get('2026-D08')!);
    expect(view.intake('firstImpression')).toBe('oil-low');
    expect(diagnose(view).causes[0]!.id).not.toBe('oil-low');
  });
  it('has nothing in the way of releasing the winch', () => {
    const view = told(cases.get('2026-D06')!);
    expect(releaseCheck(view, diagnose(view)).blocks).toEqual([]);
    expect(view.released).toBeDefined();
  });
});
