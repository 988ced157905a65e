import { Button, Input } from 'antd';
import type { CaseView } from '@true-ledger/core/case';
import { letterheadLines, signatureLines, versionLines, type ReportBlock, type ReportModel } from '@true-ledger/core/report';
import { useShopKeysQuery, useShopQuery } from '../../app/api.js';
import { useState, type ReactNode } from 'react';
import { ShapesSvg } from '../../surface/ShapesSvg.js';
import { PlanSvg } from '../../surface/PlanSvg.js';
import { SurfaceView } from '../../surface/SurfaceView.js';
import { FirstPageView } from './FirstPageView.js';
import './document.css';

type Sentence = Extract<ReportBlock, { kind: 'text' }>;

interface PageProps {
  readonly model: ReportModel;
  readonly view: CaseView;
  readonly caseId: string;
  readonly marks: boolean;
  readonly inset: boolean;
  /** Keeps a sentence in other words; absent where the account is only read. */
  readonly onSentence?: (key: string, text: string, generated: string) => void;
}

/** The account as pages on screen and on paper; draws the same model as the PDF. */
export function ReportPage({ model, ...props }: PageProps): ReactNode {
  const { data: shop } = useShopQuery();
  const { data: keys } = useShopKeysQuery();
  return (
    <article className="report" aria-label="Account">
      <header>
        {shop && shop.letterhead.name !== '' && (
          <div className="letterhead">
            <b>{shop.letterhead.name}</b>
            <span>
              {letterheadLines(shop.letterhead).map((line) => (
                <span key={line}>{line}</span>
              ))}
            </span>
          </div>
        )}
        <h1>
          {model.heading} {model.number}
        </h1>
        <p className="subtitle">{model.title}</p>
        <p>{model.reference ? `Client reference ${model.reference}` : 'No client reference'}</p>
        {versionLines(model).map((line) => (
          <p key={line} className="quiet">
            {line}
          </p>
        ))}
      </header>
      {model.first && (
        <FirstPageView
          first={model.first}
          model={model}
          picture={model.first.picture && <Block block={model.first.picture} model={model} {...props} />}
        />
      )}
      {model.sections.map((s) => (
        <section key={s.id} data-section={s.id}>
          <h2>{s.heading}</h2>
          {s.blocks.map((b, i) => (
            <Block key={b.kind === 'text' && b.key ? b.key : i} block={b} model={model} {...props} />
          ))}
        </section>
      ))}
      <footer className="signature">
        <div>
          <span>Place and date</span>
          <span>Signature</span>
        </div>
        {signatureLines({ ...model, ...(keys ? { key: keys.fingerprint } : {}) }).map((line) => (
          <p key={line} className="quiet">
            {line}
          </p>
        ))}
      </footer>
    </article>
  );
}

function Block({ block, view, caseId, marks, inset, onSentence }: PageProps & { block: ReportBlock }): ReactNode {
  switch (block.kind) {
    case 'text':
      if (block.strong && !block.key) return <h3>{block.text}</h3>;
      return block.key && onSentence ? (
        <EditableSentence block={block} onKeep={onSentence} />
      ) : (
        <p className={block.strong ? 'strong' : ''}>{block.text}</p>
      );
    case 'list':
      return (
        <ul>
          {block.items.map((item, i) => (
            <li key={i}>{item}</li>
          ))}
        </ul>
      );
    case 'table': {
      const figures = new Set(block.figures ?? []);
      return (
        <table>
          {block.head.some((h) => h !== '') && (
            <thead>
              <tr>
                {block.head.map((h, i) => (
                  <th key={i} className={figures.has(i) ? 'figure' : ''}>
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
          )}
          <tbody>
            {block.rows.map((r, i) => (
              <tr key={i}>
                {r.map((c, k) => (
                  <td key={k} className={figures.has(k) ? 'figure' : ''}>
                    {c}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      );
    }
    case 'photo':
      return (
        <figure>
          <img
            src={`/api/cases/${caseId}/photos/${block.sha256}/account?station=${encodeURIComponent(block.station)}&marks=${marks ? 'yes' : 'no'}&inset=${inset ? 'yes' : 'no'}&v=${block.stamp}`}
            alt={block.caption}
          />
          <figcaption>
            Picture {block.number}: {block.caption}
            {block.standIn ? ' – rendered stand-in, not a photograph' : ''}
          </figcaption>
        </figure>
      );
    case 'wear': {
      const station = view.byId.get(block.station);
      return (
        <figure>
          {station && <SurfaceView view={station} width={420} />}
          <figcaption>{block.caption}</figcaption>
        </figure>
      );
    }
    case 'drawing':
      return (
        <figure className="drawing">
          <ShapesSvg shapes={block.shapes} width={block.width} height={block.height} label={block.caption} />
          <figcaption>{block.caption}</figcaption>
        </figure>
      );
    case 'plan':
      return (
        <figure>
          <PlanSvg layout={view.layout} height={120} detail />
          <figcaption>Plan, front at left.</figcaption>
        </figure>
      );
  }
}

/** A sentence made from the ledger: pressed, it opens for other words, with the generated ones beside them. */
function EditableSentence({
  block,
  onKeep,
}: {
  block: Sentence;
  onKeep: (key: string, text: string, generated: string) => void;
}): ReactNode {
  const [words, setWords] = useState<string | null>(null);
  const generated = block.edited?.generated ?? block.text;
  const flags = block.edited?.flags ?? [];
  if (words === null)
    return (
      <p className={`sentence${block.strong ? ' strong' : ''}${flags.length > 0 ? ' flagged' : block.edited ? ' edited' : ''}`}>
        <button type="button" aria-label={`Put in other words: ${block.text}`} onClick={() => setWords(block.text)}>
          {block.text}
        </button>
        {flags.length > 0 && <span className="fault no-print">{flags.join('; ')}.</span>}
      </p>
    );
  const keep = (text: string): void => {
    onKeep(block.key!, text.trim() === generated ? '' : text.trim(), generated);
    setWords(null);
  };
  return (
    <div className="sentence-editor no-print">
      <Input.TextArea
        autoFocus
        aria-label="The sentence in other words"
        value={words}
        autoSize={{ minRows: 2, maxRows: 8 }}
        maxLength={4000}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setWords(null);
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) keep(words);
        }}
      />
      <p className="quiet">Made from the ledger: {generated}</p>
      <div className="row">
        <Button type="primary" disabled={words.trim() === ''} onClick={() => keep(words)}>
          Keep these words
        </Button>
        {block.edited && <Button onClick={() => keep('')}>As made from the ledger</Button>}
        <Button onClick={() => setWords(null)}>Leave</Button>
      </div>
    </div>
  );
}
