import { App, Button, Input, Segmented, Select, Table } from 'antd';
import type { ApiError, GradeBookVersion, Me } from '@true-ledger/contract';
import { PART_NAMES } from '@true-ledger/core/engine';
import { contradiction, GRADE_INFO, GRADED_PARTS, gradeText, thing, type Grade, type GradeRule } from '@true-ledger/core/damage';
import { useMemo, useState, type ReactNode } from 'react';
import { useDraft } from '../app/drafts.js';
import { NumberField } from '../fields/NumberField.js';
import { useGradeBooksQuery, useSaveGradeBookMutation } from '../app/api.js';
import './gradeBook.css';

type GradedPart = (typeof GRADED_PARTS)[number];
const STEPS = [1, 2, 3, 4] as const satisfies readonly Grade[];

interface Row {
  readonly key: string;
  readonly on: GradeRule['on'];
  readonly constructions: GradeRule['constructions'];
  readonly words: string;
  /** Threshold by grade; absent: the grade is not reached by this. */
  readonly above: Readonly<Partial<Record<Grade, number>>>;
}

/** Every rule for one part alone, so that changing one part leaves the others as they are. */
const apart = (rules: readonly GradeRule[]): GradeRule[] => rules.flatMap((r) => r.parts.map((p) => ({ ...r, parts: [p] })));
const keyOf = (r: Pick<GradeRule, 'on' | 'constructions'>): string => JSON.stringify([r.on, r.constructions ?? null]);

function rowsOf(rules: readonly GradeRule[], part: GradedPart): Row[] {
  const rows = new Map<string, Row>();
  for (const r of rules) {
    if (!r.parts.includes(part)) continue;
    const key = keyOf(r);
    const row = rows.get(key) ?? { key, on: r.on, constructions: r.constructions, words: thing(r), above: {} };
    rows.set(key, { ...row, above: { ...row.above, [r.grade]: r.above } });
  }
  return [...rows.values()];
}

/** The thresholds by which grades are proposed, as a table for every part; the shop's own edits are kept as versions. */
export function GradeBook({ me }: { me: Me }): ReactNode {
  const { data: versions = [] } = useGradeBooksQuery();
  const [save, { isLoading }] = useSaveGradeBookMutation();
  const { message } = App.useApp();
  const [part, setPart] = useState<GradedPart>('shell');
  const [shown, setShown] = useState<string | null>(null);
  const [draft, setDraft] = useState<{ basedOn: string; rules: GradeRule[] } | null>(null);
  const [note, setNote] = useDraft('Note');
  const newest = versions[0];
  const version: GradeBookVersion | undefined = versions.find((v) => v.book.version === shown) ?? newest;
  const rules = useMemo(() => draft?.rules ?? (version ? apart(version.book.rules) : []), [draft, version]);
  if (!version || !newest) return <div className="page">Fetching the grade book …</div>;
  const mayEdit = me.account.role === 'owner' && version === newest;
  const fault = draft ? contradiction(draft.rules) : null;
  const set = (row: Row, grade: Grade, above: number | null): void => {
    const rest = rules.filter((r) => !(r.parts.includes(part) && keyOf(r) === row.key && r.grade === grade));
    const rule: GradeRule = {
      parts: [part],
      on: row.on,
      above: above ?? 0,
      grade,
      ...(row.constructions ? { constructions: row.constructions } : {}),
    };
    setDraft({ basedOn: draft?.basedOn ?? newest.book.version, rules: above === null ? rest : [...rest, rule] });
  };
  const keep = (): void => {
    if (!draft) return;
    save({ basedOn: draft.basedOn, rules: draft.rules, note: note.trim() })
      .unwrap()
      .then(() => {
        setDraft(null);
        setNote('');
        setShown(null);
        void message.success('Kept as a new version; new cases go by it.');
      })
      .catch((e: unknown) => void message.error((e as ApiError).sentence));
  };
  return (
    <div className="page grade-book">
      <div className="page-head">
        <h1>Grade book</h1>
        <Select
          value={version.book.version}
          aria-label="Version"
          style={{ width: 340 }}
          disabled={draft !== null}
          onChange={setShown}
          options={versions.map((v) => ({
            value: v.book.version,
            label: v.time ? `${v.book.version}, ${v.time.slice(0, 10)}, ${v.by}: ${v.note}` : `${v.book.version}, ${v.note.toLowerCase()}`,
          }))}
        />
        <span className="quiet">
          A grade records the version it was proposed by. A case keeps its book until another is taken over in it.
        </span>
      </div>
      <Segmented
        value={part}
        onChange={setPart}
        options={GRADED_PARTS.map((p) => ({ value: p, label: PART_NAMES[p] }))}
        aria-label="Part"
      />
      <Table<Row>
        size="small"
        rowKey="key"
        pagination={false}
        dataSource={rowsOf(rules, part)}
        columns={[
          {
            title: 'Above which',
            dataIndex: 'words',
            render: (w: string, row) => (
              <>
                {w[0]!.toUpperCase() + w.slice(1)}
                {row.constructions && <span className="quiet"> ({row.constructions.join(', ')})</span>}
              </>
            ),
          },
          ...STEPS.map((g) => ({
            title: (
              <span title={GRADE_INFO[g].meaning}>
                <i className="grade-dot" style={{ background: GRADE_INFO[g].colour }} /> {gradeText(g)}
              </span>
            ),
            key: g,
            width: 150,
            render: (_: unknown, row: Row) =>
              mayEdit ? (
                <NumberField
                  size="small"
                  min={0}
                  max={100}
                  value={row.above[g] ?? null}
                  placeholder="–"
                  aria-label={`${row.words}, grade ${g} above`}
                  onChange={(v) => set(row, g, v)}
                />
              ) : (
                <span className="figure">{row.above[g] ?? '–'}</span>
              ),
          })),
        ]}
      />
      {fault && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
      {draft && (
        <div className="row">
          <Input
            value={note}
            onChange={(e) => setNote(e.target.value)}
            placeholder="Why it is changed"
            aria-label="Why it is changed"
            maxLength={500}
            style={{ width: 360 }}
          />
          <Button type="primary" loading={isLoading} disabled={fault !== null || note.trim().length < 3} onClick={keep}>
            Keep as a new version
          </Button>
          <Button onClick={() => setDraft(null)}>Leave it as it was</Button>
        </div>
      )}
      {me.account.role !== 'owner' && <p className="quiet">The owner of the shop changes it.</p>}
    </div>
  );
}
