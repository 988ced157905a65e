import { Input } from 'antd';
import { PART_NAMES, PATTERNS } from '@true-ledger/core';
import { useState, type ReactNode } from 'react';

/** Catalogue of the damage patterns that can be named. */
export function Patterns(): ReactNode {
  const [search, setSearch] = useState('');
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const hits = PATTERNS.filter((p) =>
    words.every((w) =>
      `${p.name} ${p.look} ${(p.alsoCalled ?? []).join(' ')} ${p.parts.map((x) => PART_NAMES[x]).join(' ')}`.toLowerCase().includes(w),
    ),
  );
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
      </div>
      <p className="quiet">Real parts vary; the builder’s eye decides.</p>
      <div className="pattern-grid">
        {hits.map((p) => (
          <article key={p.id}>
            <h2>{p.name}</h2>
            <p className="quiet">{p.parts.map((x) => PART_NAMES[x]).join(', ')}</p>
            <p>{p.look}</p>
            <p>
              <b>Told apart.</b> {p.toldApart}
            </p>
            <p>
              <b>Why.</b> {p.mechanism}
            </p>
            <p>
              <b>Ask.</b> {p.ask}
            </p>
          </article>
        ))}
      </div>
    </div>
  );
}
