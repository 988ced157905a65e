import { Alert, Button } from 'antd';
import type { LengthUnit } from '@true-ledger/core/units';
import { gradeText, GRADE_BOOK } from '@true-ledger/core/damage';
import { lineText, type PlaceOutcome, type SheetLine } from '@true-ledger/core/measure';
import { standingGrade, type CaseView } from '@true-ledger/core/case';
import { clearancesAfter, gradeFromReadings, reboreEffect, sizeForAll } from '@true-ledger/core/measured';
import { useMemo, useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { GradeMark } from '../../surface/GradeMark.js';
import './entry.css';
import './measure.css';

/** What a sheet computes: every result with its uncertainty, its verdict and why. */
export function Results({ outcome: m, unit }: { outcome: PlaceOutcome; unit: LengthUnit }): ReactNode {
  const { outcome, problem, questions, waiting } = m;
  const [all, setAll] = useState(false);
  const within = outcome?.lines.some((l) => l.verdict?.word === 'within') ?? false;
  return (
    <section className="pane results" aria-label="Results">
      <h2>
        Results <span className="quiet">± is U, k = 2</span>
        {within && (
          <Button size="small" onClick={() => setAll((x) => !x)}>
            {all ? 'Reasons that matter' : 'Every reason'}
          </Button>
        )}
      </h2>
      {!outcome && !problem && (
        <p className="quiet">
          {m.values.size === 0
            ? 'Nothing read yet. The results build as readings come in.'
            : `Not enough to compute yet: ${waiting.join(', ') || 'more readings'}.`}
        </p>
      )}
      {problem && <Alert type="error" role="alert" title={problem.sentence} />}
      {outcome && (
        <table className="result-table">
          <tbody>
            {outcome.lines.map((l) => (
              <ResultRow key={l.id} line={l} unit={unit} all={all} />
            ))}
          </tbody>
        </table>
      )}
      {outcome?.says.map((s) => (
        <p key={s} className="says">
          {s}
        </p>
      ))}
      {outcome && outcome.missing.length > 0 && <p className="quiet">Not read: {outcome.missing.join('; ')}.</p>}
      {questions.map((q) => (
        <Alert key={q} type="warning" title={q} />
      ))}
      <Follows outcome={m} />
    </section>
  );
}

function ResultRow({ line, unit, all }: { line: SheetLine; unit: LengthUnit; all: boolean }): ReactNode {
  const v = line.verdict;
  const [value, plus] = lineText(line, unit).split(' ± ');
  const reason =
    v && `${v.reason} (${v.reference}${v.source && v.source !== v.reference ? `, ${v.source}` : ''})${v.settle ? `. ${v.settle}` : ''}`;
  const told = v && (all || v.word !== 'within');
  return (
    <>
      <tr className={told ? 'open' : ''}>
        <th>
          {line.name}
          <span className="quiet at">{line.at}</span>
        </th>
        <td className="figure">
          {value} {plus && <span className="quiet">± {plus}</span>}
        </td>
        <td>{v && <b className={`verdict-word ${v.word.replace(/ /g, '-')}`}>{v.word}</b>}</td>
      </tr>
      {told && (
        <tr>
          <td colSpan={3} className="quiet reason">
            {reason}
          </td>
        </tr>
      )}
    </>
  );
}

/** What follows from the readings: a grade to confirm, one size for all, the clearance and compression after it. */
function Follows({ outcome }: { outcome: PlaceOutcome }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const { place } = outcome;
  const station = place.station === null ? undefined : view.byId.get(place.station);
  const proposed = gradeFromReadings(outcome);
  const standing = station ? standingGrade(station) : null;
  const lines = useMemo(() => consequencesOf(view, place.spec), [view, place.spec]);
  if (!proposed && lines.length === 0) return null;
  return (
    <div className="follows">
      <h3>What follows</h3>
      {proposed && station && (
        <div className="row">
          <GradeMark grade={proposed.grade} state="findings" confirmed={false} />
          <span>
            The readings propose grade <b>{gradeText(proposed.grade)}</b> for {station.station.name}: {proposed.reason}.{' '}
            {standing !== null && <span className="quiet">It stands at {gradeText(standing)}.</span>}
          </span>
          {!readOnly && (standing === null || standing < proposed.grade) && (
            <Button
              size="small"
              onClick={() =>
                record({
                  kind: 'grade-confirmed',
                  station: station.station.id,
                  body: {
                    grade: proposed.grade,
                    proposed: proposed.grade,
                    reason: `Readings: ${proposed.reason}`.slice(0, 500),
                    book: GRADE_BOOK.version,
                  },
                })
              }
            >
              Confirm grade {proposed.grade}
            </Button>
          )}
        </div>
      )}
      {lines.map((l) => (
        <p key={l}>{l}</p>
      ))}
    </div>
  );
}

const ALL = { 'crank.pin': 'crankpins', 'crank.main': 'main journals', bore: 'bores' } as const;

function consequencesOf(view: CaseView, spec: string): string[] {
  if (spec !== 'crank.pin' && spec !== 'crank.main' && spec !== 'bore') return [];
  const plan = sizeForAll(view, spec);
  if (!plan) return [];
  const of = `${plan.measured} of ${plan.of} ${ALL[spec]} measured, ${plan.worst} decides`;
  const out: string[] = [];
  if (plan.stepMm === null) out.push(`No one size fits all (${of}): ${plan.words}`);
  else
    out.push(
      `One size for all: ${spec === 'bore' ? '+' : '−'}${plan.stepMm.toFixed(2)} mm, to ${plan.finishMm![0].toFixed(3)}–${plan.finishMm![1].toFixed(3)} mm (${of}). ${plan.words}`,
    );
  if (spec === 'bore' && plan.stepMm !== null) {
    const r = reboreEffect(view.layout, plan.stepMm);
    out.push(
      `Rebored to ${r.boreMm.toFixed(2)} mm: ${r.displacementCm3[0].toFixed(0)} → ${r.displacementCm3[1].toFixed(0)} cm³, compression ${r.ratio[0].toFixed(2)} → ${r.ratio[1].toFixed(2)} with the same chamber and crown.`,
    );
  }
  if (spec !== 'bore') {
    const after = clearancesAfter(view, spec === 'crank.pin' ? 'rod' : 'main');
    for (const a of after.slice(0, 4)) out.push(`${a.place.short}, new shells at that size: ${a.words}.`);
    if (after.length > 4) out.push(`and ${after.length - 4} more bearings on the clearance sheets.`);
  }
  return out;
}
