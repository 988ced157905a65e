import { Alert, App, Button, Empty, Input, Select } from 'antd';
import type { ApiError, Me } from '@true-ledger/contract';
import { formatQuantity, parseQuantity, QUANTITIES } from '@true-ledger/core/units';
import { ENGINE_TEMPLATES, validateLayout, type EngineLayout } from '@true-ledger/core/engine';
import {
  LIMIT_QUANTITIES,
  SPEC_KEYS,
  SPEC_KINDS,
  specFromTexts,
  specTexts,
  type SheetLimit,
  type SheetSpec,
  type SpecKey,
  type SpecSheet,
  type SpecTexts,
  specWords,
} from '@true-ledger/core/measure';
import { useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useSaveSheetMutation, useSheetsQuery, useSheetVersionsQuery } from '../app/api.js';
import { LayoutForm } from '../shelf/LayoutForm.js';
import { PlanSvg } from '../surface/PlanSvg.js';
import { SpecFields } from './SpecFields.js';
import { asProblem } from '../app/server.js';
import { idOfName } from '../app/idOfName.js';
import './sheets.css';

interface Draft {
  readonly id: string;
  readonly basedOn: number;
  readonly name: string;
  readonly source: string;
  readonly layout: EngineLayout;
  /** Specifications as typed, by kind of place; a kind that is not there has no fields open. */
  readonly specs: Readonly<Partial<Record<SpecKey, SpecTexts>>>;
  /** Limits as typed, by quantity and side. */
  readonly limits: Readonly<Record<string, string>>;
}

function draftOf(sheet: SpecSheet): Draft {
  const limits: Record<string, string> = {};
  for (const l of sheet.limits) {
    const q = LIMIT_QUANTITIES.find((x) => x.id === l.quantity);
    if (!q) continue;
    const say = (v: number | null): string => (v === null ? '' : formatExact(v, q.quantity, l.unit));
    limits[`${l.quantity}.lower`] = say(l.lower);
    limits[`${l.quantity}.upper`] = say(l.upper);
  }
  return {
    id: sheet.id,
    basedOn: sheet.version,
    name: sheet.name,
    source: sheet.source,
    layout: sheet.layout,
    specs: Object.fromEntries(SPEC_KEYS.flatMap((key) => (sheet.specs[key] ? [[key, specTexts(key, sheet.specs[key])]] : []))),
    limits,
  };
}

/** A canonical value in the unit it was typed in, without losing figures. */
function formatExact(value: number, quantity: keyof typeof QUANTITIES, unit: string): string {
  const factor = QUANTITIES[quantity].units[unit] ?? 1;
  return `${Number((value / factor).toPrecision(10))} ${unit}`;
}

/** What a new sheet asks first; the rest is added as it is known. */
const USUAL_SPECS: Draft['specs'] = {
  'crank.pin': specTexts('crank.pin', null),
  'crank.main': specTexts('crank.main', null),
  bore: specTexts('bore', null),
};

/** What a draft says as a request, or the faults that stand in its way. */
function requestOf(draft: Draft): { faults: string[]; body: Pick<SpecSheet, 'specs'> & { limits: SheetLimit[] } } {
  const faults: string[] = [];
  const specs: Partial<Record<SpecKey, SheetSpec>> = {};
  for (const key of SPEC_KEYS) {
    const texts = draft.specs[key];
    if (!texts) continue;
    const read = specFromTexts(key, texts, draft.source);
    if (!read.ok) faults.push(read.problem.sentence);
    else if (read.value) specs[key] = read.value;
  }
  const limits: SheetLimit[] = [];
  for (const q of LIMIT_QUANTITIES) {
    let unit = QUANTITIES[q.quantity].canonical;
    const side = (which: 'lower' | 'upper'): number | null => {
      const text = draft.limits[`${q.id}.${which}`]?.trim() ?? '';
      if (text === '') return null;
      const read = parseQuantity(text, q.quantity);
      if (!read.ok) {
        faults.push(`${q.name}: ${read.problem.sentence}`);
        return null;
      }
      unit = read.value.unit;
      return read.value.value;
    };
    const lower = side('lower');
    const upper = side('upper');
    if (lower !== null && upper !== null && lower > upper) faults.push(`${q.name}: the lower limit is above the upper.`);
    if (lower !== null || upper !== null) limits.push({ quantity: q.id, lower, upper, unit });
  }
  if (draft.name.trim() === '') faults.push('Give the sheet a name.');
  if (draft.source.trim() === '') faults.push('Name the source: book and page, data plate, or measured new part.');
  for (const p of validateLayout(draft.layout)) faults.push(p.sentence);
  return { faults, body: { specs, limits } };
}

/** Engines as this shop knows them: layout and limits with their source, every version kept. */
export function Sheets({ me }: { me: Me }): ReactNode {
  const { sheetId } = useParams();
  const { data: sheets = [], isLoading } = useSheetsQuery();
  const navigate = useNavigate();
  const [draft, setDraft] = useState<Draft | null>(null);
  const shown = sheets.find((s) => s.id === sheetId) ?? sheets[0];
  const mayWrite = me.account.role !== 'reader';
  const fresh = (): void =>
    setDraft({ id: '', basedOn: 0, name: '', source: '', layout: ENGINE_TEMPLATES[0]!.layout, specs: USUAL_SPECS, limits: {} });
  return (
    <div className="page sheets">
      <div className="page-head">
        <h1>Spec sheets</h1>
        {mayWrite && !draft && <Button onClick={fresh}>New sheet</Button>}
        <span className="quiet">A case takes a copy, so a later version changes no verdict already given.</span>
      </div>
      {draft ? (
        <SheetForm
          draft={draft}
          onChange={setDraft}
          onDone={(saved) => {
            setDraft(null);
            if (saved) void navigate(`/sheets/${saved.id}`);
          }}
        />
      ) : (
        <div className="opening-grid">
          <nav className="pane check-list" aria-label="Sheets">
            {sheets.map((s) => (
              <Link key={s.id} to={`/sheets/${s.id}`} className={s === shown ? 'here' : ''} aria-current={s === shown}>
                <span>{s.name}</span>
                <span className="quiet figure">v{s.version}</span>
              </Link>
            ))}
            {!isLoading && sheets.length === 0 && (
              <p className="quiet">
                No sheet yet. Enter an engine once, with its limits and where they come from; the next case of it starts with them.
              </p>
            )}
          </nav>
          {shown ? (
            <SheetView sheet={shown} onEdit={mayWrite ? () => setDraft(draftOf(shown)) : null} />
          ) : (
            <Empty image={null} description="" />
          )}
        </div>
      )}
    </div>
  );
}

function SheetView({ sheet, onEdit }: { sheet: SpecSheet; onEdit: (() => void) | null }): ReactNode {
  const { data: versions = [] } = useSheetVersionsQuery(sheet.id);
  const [version, setVersion] = useState<number | null>(null);
  const shown = versions.find((v) => v.version === version) ?? sheet;
  return (
    <section className="pane" aria-label={shown.name}>
      <h2>
        {shown.name}
        {versions.length > 1 && (
          <Select
            size="small"
            value={shown.version}
            aria-label="Version"
            options={versions.map((v) => ({ value: v.version, label: `version ${v.version}, ${v.by}, ${v.time.slice(0, 10)}` }))}
            onChange={setVersion}
          />
        )}
        {onEdit && (
          <Button size="small" onClick={onEdit}>
            Write the next version
          </Button>
        )}
        <Link to={`/new?sheet=${sheet.id}`}>Open a case with it</Link>
      </h2>
      <p className="quiet">
        Source: {shown.source}. Kept by {shown.by}, {shown.time.slice(0, 10)}.
      </p>
      <div className="plan-box">
        <PlanSvg layout={shown.layout} height={120} detail />
      </div>
      <table className="lines">
        <tbody>
          {SPEC_KEYS.flatMap((key) => {
            const spec = shown.specs[key];
            return spec ? (
              <tr key={key}>
                <th>{SPEC_KINDS[key].name}</th>
                <td colSpan={2} className="figure">
                  {specWords(key, spec)}
                </td>
              </tr>
            ) : (
              []
            );
          })}
          {shown.limits.map((l) => {
            const q = LIMIT_QUANTITIES.find((x) => x.id === l.quantity);
            if (!q) return null;
            const say = (v: number | null): string => (v === null ? '' : formatQuantity(v, q.quantity, l.unit));
            return (
              <tr key={l.quantity}>
                <th>{q.name}</th>
                <td className="figure">
                  {[l.lower !== null && `≥ ${say(l.lower)}`, l.upper !== null && `≤ ${say(l.upper)}`].filter(Boolean).join(', ')}
                </td>
                <td className="quiet">limit</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function SheetForm({
  draft,
  onChange,
  onDone,
}: {
  draft: Draft;
  onChange: (d: Draft) => void;
  onDone: (saved: SpecSheet | null) => void;
}): ReactNode {
  const [save, { isLoading }] = useSaveSheetMutation();
  const { message } = App.useApp();
  const [problem, setProblem] = useState<ApiError | null>(null);
  const { faults, body } = requestOf(draft);
  const set = (part: Partial<Draft>): void => onChange({ ...draft, ...part });
  const keep = (): void => {
    const id = draft.id || idOfName(draft.name) || 'sheet';
    void save({ id, basedOn: draft.basedOn, name: draft.name.trim(), source: draft.source.trim(), layout: draft.layout, ...body })
      .unwrap()
      .then((saved) => {
        void message.info(`${saved.name}, version ${saved.version}, is kept.`);
        onDone(saved);
      })
      .catch((e: unknown) => setProblem(asProblem(e)));
  };
  const open = SPEC_KEYS.filter((key) => draft.specs[key]);
  return (
    <section className="pane sheet-form" aria-label="Sheet">
      <div className="fields">
        <label>
          <span>Name</span>
          <Input value={draft.name} maxLength={80} onChange={(e) => set({ name: e.target.value })} />
        </label>
        <label>
          <span>Source of the figures</span>
          <Input
            value={draft.source}
            maxLength={200}
            placeholder="Book and page, data plate, measured new part"
            onChange={(e) => set({ source: e.target.value })}
          />
        </label>
        {draft.basedOn === 0 && (
          <label>
            <span>Start from</span>
            <Select
              value={draft.layout.template}
              options={ENGINE_TEMPLATES.map((t) => ({ value: t.id, label: t.name }))}
              onChange={(v) => set({ layout: ENGINE_TEMPLATES.find((t) => t.id === v)!.layout })}
            />
          </label>
        )}
      </div>
      {open.map((key) => (
        <fieldset key={key}>
          <legend>
            {SPEC_KINDS[key].name} (mm, or with a unit: 2.0860&quot;){' '}
            <Button
              type="text"
              size="small"
              aria-label={`Take out ${SPEC_KINDS[key].name}`}
              onClick={() => set({ specs: Object.fromEntries(Object.entries(draft.specs).filter(([k]) => k !== key)) })}
            >
              Take out
            </Button>
          </legend>
          <SpecFields specKey={key} texts={draft.specs[key]!} onChange={(texts) => set({ specs: { ...draft.specs, [key]: texts } })} />
        </fieldset>
      ))}
      <Select<SpecKey | null>
        value={null}
        placeholder="Add sizes and limits of …"
        aria-label="Add sizes and limits"
        style={{ width: 280 }}
        options={SPEC_KEYS.filter((key) => !draft.specs[key] && SPEC_KINDS[key].kind !== 'cam').map((key) => ({
          value: key,
          label: SPEC_KINDS[key].name,
        }))}
        onChange={(key) => key && set({ specs: { ...draft.specs, [key]: specTexts(key, null) } })}
      />
      <fieldset>
        <legend>Limits (with or without a unit: 0.25, 10 thou, 20 psi)</legend>
        <div className="fields">
          {LIMIT_QUANTITIES.flatMap((q) =>
            (['lower', 'upper'] as const)
              .filter((side) => q.side === 'both' || q.side === side)
              .map((side) => (
                <label key={`${q.id}.${side}`}>
                  <span>
                    {q.name}
                    {q.side === 'both' ? (side === 'lower' ? ', least' : ', most') : ''} ({QUANTITIES[q.quantity].canonical})
                  </span>
                  <Input
                    value={draft.limits[`${q.id}.${side}`] ?? ''}
                    maxLength={30}
                    onChange={(e) => set({ limits: { ...draft.limits, [`${q.id}.${side}`]: e.target.value } })}
                  />
                </label>
              )),
          )}
        </div>
      </fieldset>
      <LayoutForm key={draft.layout.template} layout={draft.layout} onChange={(layout) => set({ layout })} />
      {faults.map((f) => (
        <p key={f} className="fault">
          {f}
        </p>
      ))}
      {problem && <Alert type="error" role="alert" title={problem.sentence} />}
      <div className="row">
        <Button type="primary" disabled={faults.length > 0} loading={isLoading} onClick={keep}>
          {draft.basedOn === 0 ? 'Keep the sheet' : `Keep as version ${draft.basedOn + 1}`}
        </Button>
        <Button onClick={() => onDone(null)}>Leave as it was</Button>
      </div>
    </section>
  );
}
