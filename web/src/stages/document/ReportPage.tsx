import { type CaseView, type ReportBlock, type ReportModel } from '@true-ledger/core';
import type { ReactNode } from 'react';
import { SequenceSvg } from '../cause/SequenceSvg.js';
import { PlanSvg } from '../../surface/PlanSvg.js';
import { SurfaceView } from '../../surface/SurfaceView.js';

/** The report as pages on screen and on paper; draws the same model as the PDF. */
export function ReportPage({ model, view, caseId }: { model: ReportModel; view: CaseView; caseId: string }): ReactNode {
  return (
    <article className="report" aria-label="Report">
      <header>
        <h1>Teardown account {model.number}</h1>
        <p className="subtitle">{model.title}</p>
        <p>{model.reference ? `Client reference ${model.reference}` : 'No client reference'}</p>
      </header>
      {model.sections.map((s) => (
        <section key={s.id}>
          <h2>{s.heading}</h2>
          {s.blocks.map((b, i) => (
            <Block key={i} block={b} view={view} caseId={caseId} />
          ))}
        </section>
      ))}
    </article>
  );
}

function Block({ block, view, caseId }: { block: ReportBlock; view: CaseView; caseId: string }): ReactNode {
  switch (block.kind) {
    case 'text':
      return block.strong ? <h3>{block.text}</h3> : <p>{block.text}</p>;
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
          <img src={`/api/cases/${caseId}/photos/${block.sha256}/work`} alt={block.caption} loading="lazy" />
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
    case 'sequence':
      return (
        <figure className="sequence-figure">
          <SequenceSvg shapes={block.shapes} width={block.width} height={block.height} label={block.caption} />
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
