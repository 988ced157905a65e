import { Alert, App, Button, Checkbox, Input, Popconfirm } from 'antd';
import { Dialog } from '../../app/Dialog.js';
import { skipToken } from '@reduxjs/toolkit/query';
import type { ShareLink } from '@true-ledger/contract';
import { HEADINGS, signedVersions, type ReportModel } from '@true-ledger/core/report';
import { useRef, useState, type ReactNode } from 'react';
import { useDraft } from '../../app/drafts.js';
import { NumberField } from '../../fields/NumberField.js';
import { useMakeShareMutation, useRevokeShareMutation, useSharesQuery, useSignAccountMutation } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';
import { PdfRun } from './PdfRun.js';
import { useAppSelector } from '../../app/store.js';
import { asProblem } from '../../app/server.js';
import './document.css';

const minute = (iso: string): string => new Date(iso).toLocaleString('sv-SE').slice(0, 16);

/** What is to be looked at before signing, the signed versions, and links by which others read them. */
export function SignShare({ model, onPdf }: { model: ReportModel | null; onPdf: (version: number) => void }): ReactNode {
  const { view, readOnly } = useCase();
  const [asking, setAsking] = useState(false);
  const signed = signedVersions(view);
  return (
    <div className="sign-pane">
      {model && model.flags.length > 0 && (
        <section aria-label="Passages to look at">
          <h3>Passages to look at</h3>
          <ul className="flags">
            {model.flags.map((f, i) => (
              <li key={i}>
                <b>{HEADINGS[f.section]}:</b> “{f.text.length > 90 ? `${f.text.slice(0, 89)}…` : f.text}”{' '}
                <span className="fault">{f.flags.join('; ')}.</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {!readOnly && (
        <Button type="primary" disabled={model === null} onClick={() => setAsking(true)}>
          {signed.length === 0 ? 'Sign the account' : `Sign version ${signed.length + 1}`}
        </Button>
      )}
      {signed.length === 0 ? (
        <p className="quiet">
          Nothing is signed yet. A signed version is kept as it is and can be shown to others by a link; what changes later becomes the next
          version.
        </p>
      ) : (
        <ol className="versions">
          {[...signed].reverse().map((v) => (
            <li key={v.version}>
              <div className="row">
                <b>Version {v.version}</b>
                <Button size="small" onClick={() => onPdf(v.version)}>
                  PDF of version {v.version}
                </Button>
              </div>
              <div className="quiet">
                {v.by}, <span className="figure">{minute(v.time)}</span>
              </div>
              {v.reason && <div>{v.reason}</div>}
              {v.changed.length > 0 && <div className="quiet">Reads differently: {v.changed.join(', ')}</div>}
            </li>
          ))}
        </ol>
      )}
      {signed.length > 0 && !readOnly && <Links newest={signed.length} />}
      {asking && model && <SignDialog model={model} version={signed.length + 1} onClose={() => setAsking(false)} />}
    </div>
  );
}

function SignDialog({ model, version, onClose }: { model: ReportModel; version: number; onClose: () => void }): ReactNode {
  const { caseId, me } = useCase();
  const [sign, { isLoading, error }] = useSignAccountMutation();
  /** Asked again after a lost answer, it is the same signature. */
  const id = useRef(crypto.randomUUID());
  const [reason, setReason] = useDraft('What this version amends');
  const [accept, setAccept] = useState(false);
  const unsent = useAppSelector((s) => s.outbox.items.some((i) => i.caseId === caseId));
  const problem = error ? asProblem(error) : null;
  return (
    <Dialog
      open
      title={version === 1 ? 'Sign the account' : `Sign version ${version}`}
      okText="Sign"
      okButtonProps={{
        loading: isLoading,
        disabled: unsent || (version > 1 && reason.trim().length < 3) || (model.flags.length > 0 && !accept),
      }}
      onCancel={onClose}
      onOk={() =>
        void sign({ caseId, id: id.current, head: model.ledgerHead, reason: reason.trim(), acceptFlags: accept })
          .unwrap()
          .then(onClose)
          .catch(() => undefined)
      }
    >
      <p>
        {me.author.name} signs what the page shows now, made from {model.entries} entries. The PDF is kept by its hash and stays as it is.
      </p>
      <Input.TextArea
        rows={3}
        aria-label={version === 1 ? 'Note' : 'What this version amends and why'}
        placeholder={version === 1 ? 'Note (may stay empty)' : 'What this version amends and why'}
        value={reason}
        maxLength={2000}
        onChange={(e) => setReason(e.target.value)}
      />
      {model.flags.length > 0 && (
        <>
          <Alert
            type="warning"
            style={{ marginTop: 12 }}
            title={`${model.flags.length} passage${model.flags.length === 1 ? ' says' : 's say'} what the figures do not.`}
            description={model.flags.map((f) => f.flags.join('; ')).join('. ')}
          />
          <Checkbox checked={accept} onChange={(e) => setAccept(e.target.checked)}>
            Sign over them; the account will say so
          </Checkbox>
        </>
      )}
      {isLoading && (
        <p>
          Making the PDF, then entering it. <PdfRun caseId={caseId} run={id.current} />
        </p>
      )}
      {unsent && <p className="fault">Entries made here are not confirmed by the server yet; sign when they are.</p>}
      {problem && <Alert type="error" role="alert" style={{ marginTop: 12 }} title={problem.sentence} />}
    </Dialog>
  );
}

function stateOf(link: ShareLink): string {
  if (link.revoked) return `taken back ${minute(link.revoked)}`;
  return Date.parse(link.expires) <= Date.now() ? `ended ${minute(link.expires)}` : `until ${minute(link.expires)}`;
}

function Links({ newest }: { newest: number }): ReactNode {
  const { caseId } = useCase();
  const { data = [] } = useSharesQuery(caseId ? caseId : skipToken);
  const [make, { isLoading }] = useMakeShareMutation();
  const [revoke] = useRevokeShareMutation();
  const { message } = App.useApp();
  /** Asked again after a lost answer, it is the same link. */
  const id = useRef(crypto.randomUUID());
  const [days, setDays] = useState(30);
  const [note, setNote] = useDraft('Note of the link');
  const [cover, setCover] = useState(false);
  const [made, setMade] = useState<string | null>(null);
  const create = async (): Promise<void> => {
    try {
      const { path } = await make({ caseId, id: id.current, version: newest, days, note, cover }).unwrap();
      id.current = crypto.randomUUID();
      setMade(`${window.location.origin}${path}`);
      setNote('');
    } catch (error) {
      void message.error(`No link was made. ${asProblem(error).sentence}`);
    }
  };
  return (
    <section aria-label="Links">
      <h3>Links for outsiders</h3>
      <p className="quiet">
        A link opens version {newest} as signed and nothing else. It needs no account, so give it only to whom it is meant for.
      </p>
      <div className="row">
        <NumberField min={1} max={365} value={days} whole unit="days" aria-label="Days the link lives" onChange={(v) => setDays(v ?? 30)} />
        <Input value={note} placeholder="For whom" aria-label="For whom" maxLength={200} onChange={(e) => setNote(e.target.value)} />
        <Checkbox checked={cover} onChange={(e) => setCover(e.target.checked)}>
          with the cover sheet, which names client and engine
        </Checkbox>
        <Button loading={isLoading} onClick={() => void create()}>
          Make a link
        </Button>
      </div>
      {made && (
        <Alert
          type="info"
          title="This link is shown once; only its hash is kept."
          description={<Input readOnly value={made} aria-label="The link" onFocus={(e) => e.target.select()} />}
        />
      )}
      <ul className="links">
        {data.map((l) => (
          <li key={l.id}>
            <span>
              Version {l.version}
              {l.note ? `, ${l.note}` : ''}
              {l.cover ? ', with cover sheet' : ''}: {stateOf(l)}; opened <span className="figure">{l.opened}</span> time
              {l.opened === 1 ? '' : 's'}
              {l.lastOpened ? `, last ${minute(l.lastOpened)}` : ''}
            </span>
            {!l.revoked && Date.parse(l.expires) > Date.now() && (
              <Popconfirm
                title="Whoever has this link can no longer open it."
                okText="Take back"
                onConfirm={() => void revoke({ caseId, id: l.id })}
              >
                <Button size="small">Take back</Button>
              </Popconfirm>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
