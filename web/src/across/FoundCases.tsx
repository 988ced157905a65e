import { Alert } from 'antd';
import { useDeferredValue, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useSearchAllQuery } from '../app/api.js';
import { asProblem } from '../app/server.js';

/** Cases that hold all words, and where. */
export function FoundCases({ words }: { words: string }): ReactNode {
  const asked = useDeferredValue(words.trim());
  const { currentData, data, error } = useSearchAllQuery(asked, { skip: asked === '' });
  const found = currentData ?? data;
  if (error) return <Alert type="error" role="alert" title={asProblem(error).sentence} />;
  if (!found) return <p className="quiet">Looking through all cases…</p>;
  return (
    <section className="pane" aria-label="Found">
      <h2>
        {found.total === 0 ? 'No case holds all of these words' : `${found.total} case${found.total === 1 ? '' : 's'}`}
        {found.total > found.cases.length && <span className="quiet">the {found.cases.length} written in last are shown</span>}
      </h2>
      <ul className="found-cases">
        {found.cases.map((c) => (
          <li key={c.id}>
            <Link to={`/case/${c.id}/bench`}>
              <span className="figure">{c.number}</span> {c.title}
            </Link>{' '}
            <span className="quiet">{c.engine}</span>
            <p>{c.where}</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
