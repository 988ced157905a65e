import { Button, Checkbox, Input, Tabs } from 'antd';
import type { ReportField } from '@true-ledger/core/entries';
import { layoutOf } from '@true-ledger/core/report';
import { useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { useCase, useNow, useRecord } from '../../app/caseContext.js';
import { useTakeFile } from '../../app/takeFile.js';
import { useAppSelector } from '../../app/store.js';
import { Waiting } from '../../app/Waiting.js';
import { useAccount } from '../../workers/compute.js';
import { LayOut } from './LayOut.js';
import { Letters } from './Letters.js';
import { ReportPage } from './ReportPage.js';
import { OutcomePane } from './OutcomePane.js';
import { PdfRun } from './PdfRun.js';
import { SignShare } from './SignShare.js';
import './document.css';

function Words({ field, label }: { field: ReportField; label: string }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const kept = view.report(field);
  const [text, setText] = useDraft(label, kept);
  return (
    <label className="wide">
      <span>{label}</span>
      <Input.TextArea
        value={text}
        autoSize={{ minRows: 4, maxRows: 14 }}
        maxLength={20000}
        disabled={readOnly}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => {
          if (text !== kept) record({ kind: 'report-set', station: null, body: { field, value: text } });
        }}
      />
    </label>
  );
}

/** Where the PDF of a signed version, or of the draft, is had; the cover sheet names client and engine. */
function pdfPath(version: number | null, cover: boolean): string {
  if (version === null) return cover ? 'report-with-cover.pdf' : 'report.pdf';
  return `account/${version}/${cover ? 'account-with-cover' : 'account'}.pdf`;
}

/** The account: how it is laid out, worded and signed at the left, the page as it will be printed at the right. */
export function DocumentStage(): ReactNode {
  const { view, state, caseId, readOnly } = useCase();
  const record = useRecord();
  const now = useNow();
  const [cover, setCover] = useState(false);
  const { takeFile, busy, run } = useTakeFile(`/api/cases/${caseId}`);
  const unsent = useAppSelector((s) => s.outbox.items.some((i) => i.caseId === caseId));
  const model = useAccount(state);
  const layout = layoutOf(view);
  // Signed here, and nothing was written since: the account is that version.
  const last = view.signed.at(-1);
  const standing = last && last.version.seq === state.seq && last.version.author.shop === undefined ? last.value.version : null;
  const pdf = pdfPath(standing, cover);
  const reword = (sentence: string, text: string, generated: string): void => {
    const held = now().sentences.get(sentence)?.value;
    if ((held?.text ?? '') !== text || held?.generated !== generated)
      record({ kind: 'sentence-set', station: null, body: { sentence, text, generated } });
  };
  return (
    <div className="page document">
      <div className="page-head no-print">
        <h1>Document</h1>
        <Button type="primary" loading={busy === pdf} onClick={() => void takeFile(pdf, 'The PDF')}>
          Take PDF
        </Button>
        <Button loading={busy === 'report.html'} onClick={() => void takeFile('report.html', 'The HTML')}>
          Take HTML
        </Button>
        {!readOnly && (
          <Checkbox checked={cover} onChange={(e) => setCover(e.target.checked)}>
            with cover sheet
          </Checkbox>
        )}
        <Button onClick={() => window.print()}>Print</Button>
        {!readOnly && (
          <Button loading={busy === 'bundle.zip'} onClick={() => void takeFile('bundle.zip', 'The bundle')}>
            Take bundle
          </Button>
        )}
        <Button loading={busy === 'case.json'} onClick={() => void takeFile('case.json', 'The case file')}>
          Take case file
        </Button>
        <PdfRun caseId={caseId} run={run} />
        {standing !== null && (
          <span className="quiet" role="status">
            Signed, version {standing}
          </span>
        )}
        {unsent && <span className="fault">Some entries are not confirmed yet; files hold only what is.</span>}
      </div>
      <div className="document-grid">
        <div className="document-side no-print">
          <section className="pane">
            <Tabs
              size="small"
              tabBarGutter={16}
              items={[
                {
                  key: 'words',
                  label: 'Words',
                  children: (
                    <>
                      <Words field="conclusion" label="Conclusion" />
                      <Words field="actions" label="What is to be done" />
                      <p className="quiet">
                        Everything else is made from the ledger. Press a sentence on the page to put it in other words; it is held against
                        the figures. State what was seen; blame nobody.
                      </p>
                    </>
                  ),
                },
                { key: 'layout', label: 'Lay out', children: <LayOut /> },
                ...(readOnly ? [] : [{ key: 'letters', label: 'Letters', children: <Letters /> }]),
                {
                  key: 'sign',
                  label: model && model.flags.length > 0 ? `Sign, share (${model.flags.length})` : 'Sign, share',
                  children: <SignShare model={model} onPdf={(v) => void takeFile(pdfPath(v, cover), 'The PDF')} />,
                },
              ]}
            />
          </section>
          <section className="pane" aria-label="What became of it">
            <h2>What became of it</h2>
            <OutcomePane />
          </section>
        </div>
        {model ? (
          <ReportPage
            model={model}
            view={view}
            caseId={caseId}
            marks={layout.marks}
            inset={layout.insets}
            {...(readOnly ? {} : { onSentence: reword })}
          />
        ) : (
          <Waiting what="Making the account" />
        )}
      </div>
    </div>
  );
}
