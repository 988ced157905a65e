import { signatureLines, type FirstPage, type ReportModel } from '@true-ledger/core/report';
import type { ReactNode } from 'react';
import { ShapesSvg } from '../../surface/ShapesSvg.js';
import './document.css';

/** The first page of an account on screen and in print: the answer by itself. `picture` draws the picture that shows it. */
export function FirstPageView({ first, model, picture }: { first: FirstPage; model: ReportModel; picture: ReactNode }): ReactNode {
  const { sure } = first;
  return (
    <section className="first-page" aria-label="The answer">
      <p className="failed">{first.failed}</p>
      <p className="why">{first.why}</p>
      <div className="answer-columns">
        <div>{picture ?? <p className="quiet">No picture of it is in this account.</p>}</div>
        <div>
          {sure && (
            <>
              <h3>Cause, and how sure</h3>
              <p className="strong">{sure.place ? `${sure.cause}: ${sure.place}` : sure.cause}</p>
              <p>{sure.words}</p>
              <Scale low={sure.low} high={sure.high} at={sure.probability} />
            </>
          )}
          <Lines name="It rests on" lines={first.restsOn} />
          {first.rival && <p>{first.rival}</p>}
        </div>
      </div>
      <figure className="drawing">
        <ShapesSvg shapes={first.bench.shapes} width={first.bench.width} height={first.bench.height} label={first.bench.caption} />
        <figcaption>{first.bench.caption}</figcaption>
      </figure>
      <div className="answer-columns three">
        <Lines name="To be done" lines={first.todo} />
        <Lines name="Not seen" lines={first.notSeen} />
        <Lines
          name="Signed, and how to check it"
          lines={[...signatureLines(model), `Ledger of ${model.entries} entries, head ${model.ledgerHead.slice(0, 12)}….`]}
        />
      </div>
    </section>
  );
}

function Lines({ name, lines }: { name: string; lines: readonly string[] }): ReactNode {
  if (lines.length === 0) return null;
  return (
    <div>
      <h3>{name}</h3>
      {lines.map((line) => (
        <p key={line}>{line}</p>
      ))}
    </div>
  );
}

/** 0 to 100 %: the range of the draws as a bar, the mean as a stroke. */
function Scale({ low, high, at }: { low: number; high: number; at: number }): ReactNode {
  const percent = (p: number): string => `${(100 * p).toFixed(1)}%`;
  return (
    <div
      className="certainty"
      role="img"
      aria-label={`${(100 * at).toFixed(0)} of 100, 10 to 90 % of the draws ${(100 * low).toFixed(0)} to ${(100 * high).toFixed(0)}`}
    >
      <i style={{ left: percent(low), width: `max(2px, ${percent(high - low)})` }} />
      <b style={{ left: percent(at) }} />
    </div>
  );
}
