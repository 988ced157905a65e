import { Input } from 'antd';
import { FORM_NAMES, PART_NAMES, PATTERNS, RECIPES, SEVERITIES, SEVERITY_WORDS, toldApart, type DamagePattern, type Recipe } from '@true-ledger/core';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import './patterns.css';

const RECIPE_OF = new Map(RECIPES.map((r) => [r.pattern, r]));
/** Specimens of patterns that have no text here yet. */
const MORE = RECIPES.filter((r) => !PATTERNS.some((p) => p.id === r.pattern));

const textOf = (p: DamagePattern): string =>
  `${p.name} ${p.look} ${p.alsoCalled.join(' ')} ${p.parts.map((x) => PART_NAMES[x]).join(' ')}`.toLowerCase();

/** Catalogue of the damage patterns that can be named, each with its reference pictures. */
export function Patterns(): ReactNode {
  const [search, setSearch] = useState('');
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (text: string): boolean => words.every((w) => text.includes(w));
  const hits = PATTERNS.filter((p) => fits(textOf(p)));
  const more = MORE.filter((r) => fits(`${r.name} ${FORM_NAMES[r.form]}`.toLowerCase()));
  return (
    <div className="page">
      <div className="page-head">
        <h1>Patterns</h1>
        <Input.Search
          allowClear
          placeholder="Find a pattern"
          aria-label="Find a pattern"
          style={{ width: 280 }}
          onChange={(e) => setSearch(e.target.value)}
        />
        <span className="quiet">
          {hits.length} of {PATTERNS.length}
        </span>
        <span className="quiet">Rendered specimens, begun · clear · far gone. Real parts vary; the builder’s eye decides.</span>
      </div>
      <div className="pattern-grid">
        {hits.map((p) => {
          const recipe = RECIPE_OF.get(p.id);
          return (
            <article key={p.id}>
              <h2>{p.name}</h2>
              <p className="quiet">{p.parts.map((x) => PART_NAMES[x]).join(', ')}</p>
              {recipe && <ReferencePictures recipe={recipe} />}
              <p>{p.look}</p>
              <p>
                <b>Told apart.</b> {toldApart(p)}
              </p>
              <p>
                <b>Why.</b> {p.mechanism}
              </p>
              <p>
                <b>Ask.</b> {p.ask}
              </p>
            </article>
          );
        })}
      </div>
      {hits.length === 0 && <p className="quiet">No pattern goes by these words. Try the part, or what it looks like.</p>}
      {more.length > 0 && (
        <>
          <h2>More specimens</h2>
          <div className="pattern-grid">
            {more.map((r) => (
              <article key={r.pattern}>
                <h2>{r.name}</h2>
                <p className="quiet">{FORM_NAMES[r.form]}</p>
                <ReferencePictures recipe={r} />
              </article>
            ))}
          </div>
        </>
      )}
    </div>
  );
}

function ReferencePictures({ recipe }: { recipe: Recipe }): ReactNode {
  return (
    <div className="reference-pictures">
      {SEVERITIES.map((s) => (
        <Link
          key={s}
          to={`/studio?pattern=${recipe.pattern}&severity=${s}`}
          title={`${recipe.name}, ${SEVERITY_WORDS[s]}: turn it in hand`}
          aria-label={`${recipe.name}, ${SEVERITY_WORDS[s]}: rendered specimen, turn it in hand`}
        >
          <img src={`/reference/${recipe.pattern}-${s}.webp`} alt="" width={400} height={300} loading="lazy" decoding="async" />
        </Link>
      ))}
    </div>
  );
}
