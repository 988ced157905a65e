import { Alert, Button, Input, Select } from 'antd';
import { ENGINE_TEMPLATES, validateLayout, type EngineLayout } from '@true-ledger/core/engine';
import { caseView } from '@true-ledger/core/case';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useDraft } from '../app/drafts.js';
import { useNavigate, useSearchParams } from 'react-router';
import { skipToken } from '@reduxjs/toolkit/query';
import { useCreateCaseMutation, useGetCaseQuery, useSheetsQuery } from '../app/api.js';
import { LayoutForm } from './LayoutForm.js';
import { asProblem } from '../app/server.js';

/** A layout typed before the page was left; null when there is none or it is not one any more. */
function draftLayout(text: string): EngineLayout | null {
  try {
    const layout = { ...ENGINE_TEMPLATES[0]!.layout, ...(JSON.parse(text) as Partial<EngineLayout>) };
    return ENGINE_TEMPLATES.some((t) => t.id === layout.template) ? layout : null;
  } catch {
    return null;
  }
}

/** Opens a case: name it, pick a template, correct it against the engine on the stand. */
export function NewCase(): ReactNode {
  const [kept, setKept] = useDraft('Engine layout');
  const [layout, setLaid] = useState<EngineLayout>(() => draftLayout(kept) ?? ENGINE_TEMPLATES[0]!.layout);
  const setLayout = (next: EngineLayout): void => {
    setLaid(next);
    setKept(JSON.stringify(next));
  };
  const [title, setTitle] = useDraft('What is it about');
  const [reference, setReference] = useDraft('Client reference');
  const [create, { isLoading, error }] = useCreateCaseMutation();
  const { data: sheets = [] } = useSheetsQuery();
  const [search, setSearch] = useSearchParams();
  const [sheetId, setSheetId] = useState<string | null>(search.get('sheet'));
  const sheet = sheets.find((s) => s.id === sheetId) ?? null;
  // A sheet named in the address brings its layout once it is there.
  const taken = useRef(false);
  useEffect(() => {
    if (sheet && !taken.current) setLayout(sheet.layout);
    taken.current ||= sheet !== null;
  }, [sheet]);
  // Another case of the same engine brings its layout, and at the server its sizes and limits.
  const likeId = search.get('like');
  const { data: like } = useGetCaseQuery(likeId ?? skipToken);
  const likeView = like ? caseView(like.state) : null;
  const likeTaken = useRef(false);
  useEffect(() => {
    if (likeView && !likeTaken.current) setLayout(likeView.layout);
    likeTaken.current ||= likeView !== null;
  }, [likeView]);
  const id = useRef(crypto.randomUUID());
  const navigate = useNavigate();
  const blocked = title.trim() === '' || validateLayout(layout).length > 0;
  const open = (): void => {
    void create({
      id: id.current,
      title: title.trim(),
      reference: reference.trim(),
      layout,
      sheet: sheet ? { id: sheet.id, version: sheet.version } : null,
      ...(likeId && !sheet ? { like: likeId } : {}),
    })
      .unwrap()
      .then((made) => {
        for (const clear of [setTitle, setReference, setKept]) clear('');
        void navigate(`/case/${made.id}/intake`);
      })
      .catch(() => undefined);
  };
  return (
    <div className="page">
      <div className="page-head">
        <h1>Open a new case</h1>
        <Button onClick={() => void navigate('/')}>Back to the Shelf</Button>
        <Button type="primary" disabled={blocked} loading={isLoading} onClick={open}>
          Open case
        </Button>
      </div>
      {error && <Alert type="error" role="alert" title={asProblem(error).sentence} />}
      <div className="fields">
        <label>
          <span>What is it about</span>
          <Input value={title} maxLength={160} placeholder="Winch engine, knock when hot" onChange={(e) => setTitle(e.target.value)} />
        </label>
        <label>
          <span>Client reference (no names)</span>
          <Input value={reference} maxLength={160} onChange={(e) => setReference(e.target.value)} />
        </label>
        <label>
          <span>Engine template</span>
          <Select
            value={sheet ? `sheet:${sheet.id}` : layout.template}
            options={[
              ...(sheets.length > 0
                ? [
                    {
                      label: 'Sheets of this shop',
                      options: sheets.map((s) => ({ value: `sheet:${s.id}`, label: `${s.name}, v${s.version}` })),
                    },
                  ]
                : []),
              { label: 'Generic templates', options: ENGINE_TEMPLATES.map((t) => ({ value: t.id, label: t.name })) },
            ]}
            onChange={(value) => {
              const own = sheets.find((s) => `sheet:${s.id}` === value) ?? null;
              taken.current = true;
              // Another engine was chosen: nothing of the earlier case is taken over.
              if (likeId) setSearch({}, { replace: true });
              setSheetId(own?.id ?? null);
              setLayout(own?.layout ?? ENGINE_TEMPLATES.find((t) => t.id === value)!.layout);
            }}
            style={{ width: '100%' }}
          />
        </label>
      </div>
      <p className="quiet">
        {likeView &&
          !sheet &&
          `The same engine as in ${likeView.number}, ${likeView.title}: its layout, sizes and limits, nothing that was found in it. `}
        {sheet
          ? `Layout and ${sheet.limits.length + Object.keys(sheet.specs).length} limits from ${sheet.name}, version ${sheet.version} (${sheet.source}).`
          : `${ENGINE_TEMPLATES.find((t) => t.id === layout.template)?.note ?? ''} No pattern experience of one maker’s family is held: every figure below is a generic starting point.`}{' '}
        Correct what differs.
      </p>
      <LayoutForm key={sheet ? sheet.id : layout.template} layout={layout} onChange={setLayout} />
    </div>
  );
}
