import { Input, Select } from 'antd';
import { PART_NAMES, type PartClass } from '@true-ledger/core/engine';
import { pattern, PATTERNS, patternFound, type DamagePattern } from '@true-ledger/core/damage';
import { CAUSES, feature } from '@true-ledger/core/cause';
import { RECIPES, SEVERITIES, SEVERITY_WORDS, type Recipe } from '@true-ledger/core/specimen';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import './shelf.css';

const RECIPE_OF = new Map(RECIPES.map((r) => [r.pattern, r]));
const PARTS = [...new Set(PATTERNS.flatMap((p) => p.parts))];

/** Catalogue of the damage patterns: what each looks like, what it is mistaken for and what decides, what it leads to and which causes leave it. */
export function Patterns(): ReactNode {
  const [query, setQuery] = useSearchParams();
  const [search, setSearch] = useState('');
  const [part, setPart] = useState<PartClass | null>(null);
  const hits = PATTERNS.filter((p) => (part === null || p.parts.includes(part)) && patternFound(p, search, (of) => PART_NAMES[of]));
  const chosen = pattern(query.get('pattern') ?? '') ?? hits[0];
  const list = useRef<HTMLUListElement>(null);
  const choose = (id: string): void => setQuery({ pattern: id }, { replace: true });
  useEffect(() => {
    // Only the list scrolls; the page stays where it is.
    const here = list.current?.querySelector<HTMLElement>('.here');
    const box = list.current;
    if (box && here && (here.offsetTop < box.scrollTop || here.offsetTop > box.scrollTop + box.clientHeight - 40))
      box.scrollTop = here.offsetTop - 80;
  }, [chosen?.id]);
  return (
    <div className="page">
      <div className="page-head">
        <h1>Patterns</h1>
        <Input.Search
          allowClear
          placeholder="Find by any trade word"
          aria-label="Find a pattern"
          style={{ width: 260 }}
          onChange={(e) => setSearch(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'ArrowDown' && e.key !== 'ArrowUp') return;
            e.preventDefault();
            const at = hits.findIndex((p) => p.id === chosen?.id) + (e.key === 'ArrowDown' ? 1 : -1);
            const next = hits[Math.max(0, Math.min(hits.length - 1, at))];
            if (next) choose(next.id);
          }}
        />
        <Select<PartClass | null>
          allowClear
          placeholder="All parts"
          value={part}
          onChange={(v) => setPart(v ?? null)}
          options={PARTS.map((p) => ({ value: p, label: PART_NAMES[p] }))}
          aria-label="Part"
          style={{ width: 200 }}
        />
        <span className="quiet">
          {hits.length} of {PATTERNS.length}
        </span>
      </div>
      <div className="pattern-catalogue">
        <ul className="pane pattern-index" aria-label="Patterns" ref={list}>
          {hits.map((p) => (
            <li key={p.id}>
              <button
                type="button"
                className={p.id === chosen?.id ? 'here' : ''}
                aria-pressed={p.id === chosen?.id}
                onClick={() => choose(p.id)}
              >
                {p.name}
                <span className="quiet">{p.parts.map((x) => PART_NAMES[x]).join(', ')}</span>
              </button>
            </li>
          ))}
          {hits.length === 0 && <li className="quiet">No pattern goes by these words. Try the part, or what it looks like.</li>}
        </ul>
        {chosen && <PatternRecord p={chosen} onChoose={choose} />}
      </div>
    </div>
  );
}

function PatternRecord({ p, onChoose }: { p: DamagePattern; onChoose: (id: string) => void }): ReactNode {
  const recipe = RECIPE_OF.get(p.id);
  const causes = useMemo(
    () =>
      CAUSES.filter((c) => !c.unlisted).flatMap((c) => {
        const l = c.links.find((x) => x.feature === p.feature);
        return l ? [{ cause: c, link: l }] : [];
      }),
    [p.feature],
  );
  const order = ['almost always', 'usually', 'sometimes', 'rarely'];
  const toward = causes.filter((c) => !c.link.prevents).sort((a, b) => order.indexOf(a.link.strength) - order.indexOf(b.link.strength));
  const against = causes.filter((c) => c.link.prevents);
  const before = PATTERNS.filter((x) => x.leadsTo.includes(p.id));
  const goto = (id: string): ReactNode => (
    <button type="button" className="as-link" onClick={() => onChoose(id)}>
      {pattern(id)?.name ?? id}
    </button>
  );
  const f = feature(p.feature);
  return (
    <article className="pane pattern-record" aria-label={p.name}>
      <h2>{p.name}</h2>
      <p className="quiet">
        {p.parts.map((x) => PART_NAMES[x]).join(', ')}
        {p.alsoCalled.length > 0 ? `; also called ${p.alsoCalled.join(', ')}` : ''}
      </p>
      {recipe ? <ReferencePictures recipe={recipe} /> : <p className="quiet">No specimen is drawn of this one.</p>}
      <p>{p.look}</p>
      <p>
        <b>Why.</b> {p.mechanism}
      </p>
      <p>
        <b>Ask.</b> {p.ask}
      </p>
      {p.lookAlikes.length > 0 && (
        <table className="lines">
          <thead>
            <tr>
              <th>Mistaken for</th>
              <th>What decides</th>
            </tr>
          </thead>
          <tbody>
            {p.lookAlikes.map((l) => (
              <tr key={l.pattern}>
                <td>{goto(l.pattern)}</td>
                <td>{l.decides}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {p.signature && (
        <p>
          <b>On the wear map.</b> {p.signature.classes.join(', ')}; {p.signature.where}
          {p.signature.half
            ? `; ${p.signature.half === 'loaded' ? 'loaded half' : p.signature.half === 'both' ? 'both halves' : `${p.signature.half} half`}`
            : ''}
          {p.signature.lines ? `; ${p.signature.lines === 'none' ? 'no' : p.signature.lines} lines` : ''}
          {p.signature.specks ? '; specks' : ''}
          {p.signature.network ? '; a network of cracks' : ''}.
        </p>
      )}
      <p>
        <b>Comes after</b>{' '}
        {before.length > 0
          ? before.map((x, i) => (
              <span key={x.id}>
                {i > 0 ? ', ' : ''}
                {goto(x.id)}
              </span>
            ))
          : 'nothing listed'}
        . <b>Leads to</b>{' '}
        {p.leadsTo.length > 0
          ? p.leadsTo.map((id, i) => (
              <span key={id}>
                {i > 0 ? ', ' : ''}
                {goto(id)}
              </span>
            ))
          : 'nothing listed'}
        {p.starvesBeyond ? ', and it starves what lies beyond it on the oil route' : ''}.
      </p>
      <h3>
        Causes that leave it <span className="figure quiet">{toward.length}</span>
      </h3>
      <table className="lines">
        <tbody>
          {toward.map(({ cause, link }) => (
            <tr key={cause.id}>
              <td>{cause.name}</td>
              <td>{link.strength}</td>
              <td className="quiet">{link.reason}</td>
            </tr>
          ))}
          {toward.length === 0 && (
            <tr>
              <td className="quiet">None by itself.</td>
            </tr>
          )}
        </tbody>
      </table>
      {against.length > 0 && (
        <>
          <h3>It speaks against</h3>
          <table className="lines">
            <tbody>
              {against.map(({ cause, link }) => (
                <tr key={cause.id}>
                  <td>{cause.name}</td>
                  <td className="quiet">{link.reason}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {f && (
        <p className="quiet">
          Found without any of these in about {(f.leak * 100).toFixed(f.leak < 0.01 ? 1 : 0)} % of failed engines: {f.leakReason}.
        </p>
      )}
    </article>
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
          <span className="quiet">{SEVERITY_WORDS[s]}</span>
        </Link>
      ))}
    </div>
  );
}
