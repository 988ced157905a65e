import { Button, Input } from 'antd';
import {
  SPEC_KINDS,
  specFields,
  specFromTexts,
  specTexts,
  type SheetPlace,
  type SpecKey,
  type SpecTexts,
  specWords,
} from '@true-ledger/core/measure';
import { specOfPlace } from '@true-ledger/core/measured';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import { SpecFields } from '../../sheets/SpecFields.js';
import './entry.css';
import './measure.css';

/** Specification of a kind of place in this case, with its source. */
export function SpecPanel({ place }: { place: SheetPlace }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const key = place.spec as SpecKey;
  const spec = specOfPlace(view, place);
  const [draft, setDraft] = useState<{ readonly texts: SpecTexts; readonly source: string } | null>(null);
  const fields = specFields(key);
  if (!fields.sizes && !fields.newWall && fields.lines.length === 0) return null;
  if (!draft)
    return (
      <p className="spec-line">
        {spec ? (
          <>
            {SPEC_KINDS[key].name}: <span className="figure">{specWords(key, spec)}</span>{' '}
            <span className="quiet">({spec.source || 'source not stated'})</span>
          </>
        ) : (
          'No specification yet: results are held against rules of thumb where there are any.'
        )}{' '}
        {!readOnly && (
          <Button size="small" onClick={() => setDraft({ texts: specTexts(key, spec), source: spec?.source ?? '' })}>
            {spec ? 'Correct it' : 'Enter the specification'}
          </Button>
        )}
      </p>
    );
  const read = specFromTexts(key, draft.texts, draft.source);
  const faults = [
    read.ok ? '' : read.problem.sentence,
    read.ok && !read.value ? 'Give one size or limit at least.' : '',
    draft.source.trim() === '' ? 'Name the source: spec sheet, book and page, or measured new part.' : '',
  ].filter(Boolean);
  return (
    <div className="spec-form">
      <SpecFields specKey={key} texts={draft.texts} onChange={(texts) => setDraft({ ...draft, texts })} />
      <label className="spec-source">
        <span>Source</span>
        <Input value={draft.source} maxLength={200} onChange={(e) => setDraft({ ...draft, source: e.target.value })} />
      </label>
      {faults.map((f) => (
        <p key={f} className="fault">
          {f}
        </p>
      ))}
      <div className="row">
        <Button
          type="primary"
          disabled={faults.length > 0}
          onClick={() => {
            if (read.ok && read.value) record({ kind: 'spec-set', station: null, body: { quantity: key, spec: read.value } });
            setDraft(null);
          }}
        >
          Keep the specification
        </Button>
        <Button onClick={() => setDraft(null)}>Leave as it was</Button>
      </div>
    </div>
  );
}
