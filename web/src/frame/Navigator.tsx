import { Button, Input } from 'antd';
import { benchPlan } from '@true-ledger/core/engine';
import { caseBench, standingGrade, type StationView } from '@true-ledger/core/case';
import { memo, useMemo, useState, type KeyboardEvent, type ReactNode } from 'react';
import { NavLink, useLocation, useNavigate } from 'react-router';
import { useCase } from '../app/caseContext.js';
import { GradeMark } from '../surface/GradeMark.js';
import './frame.css';

/** Other trade words that find a place. */
const ALSO: ReadonlyArray<readonly [RegExp, string]> = [
  [/^rod\..*shell|^rod\..*bigend/, 'big end bearing conrod'],
  [/^crank\.pin/, 'rod journal crankpin'],
  [/^pan/, 'sump'],
  [/^piston/, 'slug'],
  [/^bore/, 'cylinder liner wall'],
];

/** Arrows, Home and End through the list. */
function rove(event: KeyboardEvent<HTMLElement>): void {
  const links = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-place]')];
  const at = links.indexOf(event.target as HTMLElement);
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: links.length - 1 }[event.key];
  if (at < 0 || to === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  links[Math.max(0, Math.min(links.length - 1, to))]?.focus();
}

/** All places of the engine, grouped as on the bench, with search: a narrow strip that opens over the work and closes once a place was chosen. */
export function Navigator({ open, onOpen, onClose }: { open: boolean; onOpen: () => void; onClose: () => void }): ReactNode {
  const { view, caseId } = useCase();
  const [search, setSearch] = useState('');
  const navigate = useNavigate();
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  // Who searches finds the places beside the running parts too, whether or not anything is written there.
  const every = useMemo(() => benchPlan(view.layout, new Set(view.byId.keys())), [view.layout, view.byId]);
  const plan = words.length > 0 ? every : caseBench(view);
  const fits = (s: StationView): boolean => {
    const hay = `${s.station.name} ${s.station.id} ${ALSO.filter(([r]) => r.test(s.station.id))
      .map(([, w]) => w)
      .join(' ')}`.toLowerCase();
    return words.every((w) => hay.includes(w));
  };
  const groups = plan.rows
    .map((row) => ({ row, stations: row.cells.map((c) => view.byId.get(c.station.id)!).filter(fits) }))
    .filter((g) => g.stations.length > 0);
  const { pathname } = useLocation();
  const all = groups.flatMap((g) => g.stations.map((s) => s.station.id));
  const shown = /\/station\/([^/]+)/.exec(pathname)?.[1] ?? '';
  // One stop of the keyboard for the whole list; arrows go through it.
  const stop = all.includes(shown) ? shown : all[0];
  const strip = (
    <Button type="text" className="open-places" onClick={onOpen} aria-label="Show the places" aria-expanded={open} title="Find a place (/)">
      Places
    </Button>
  );
  if (!open)
    return (
      <aside className="navigator" aria-label="Places">
        {strip}
      </aside>
    );
  return (
    <aside className="navigator" aria-label="Places">
      {strip}
      <div className="places-panel">
        <div className="find">
          <Input
            id="find-station"
            value={search}
            allowClear
            autoFocus
            placeholder="Find a place  /"
            aria-label="Find a place"
            onChange={(e) => setSearch(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Escape') return;
              e.stopPropagation();
              onClose();
            }}
            onPressEnter={(e) => {
              const first = groups[0]?.stations[0];
              // The hand is at the place now: single keys work there.
              if (!first) return;
              e.currentTarget.blur();
              void navigate(`/case/${caseId}/station/${first.station.id}`);
              onClose();
            }}
          />
          <Button type="text" onClick={onClose} aria-label="Hide the places" title="Hide the places (Esc)">
            ×
          </Button>
        </div>
        <div
          className="places"
          onKeyDown={rove}
          onClick={(e) => {
            if ((e.target as HTMLElement).closest('[data-place]')) onClose();
          }}
        >
          {groups.length === 0 && <p className="quiet">No place of this engine is called that.</p>}
          {groups.map(({ row, stations }) => (
            <section key={row.id}>
              <h3>{row.label}</h3>
              {stations.map((s) => (
                <PlaceLink key={s.station.id} station={s} stop={s.station.id === stop} />
              ))}
            </section>
          ))}
        </div>
      </div>
    </aside>
  );
}

/** One place of the list. Drawn anew only when its own view or the page changes: a link costs more than the rest of its line, and a V12 has 170. */
const PlaceLink = memo(function PlaceLink({ station, stop }: { station: StationView; stop: boolean }): ReactNode {
  const { id, name } = station.station;
  return (
    <NavLink to={`station/${id}`} className="place" tabIndex={stop ? 0 : -1} data-place={id}>
      <GradeMark grade={standingGrade(station)} state={station.state} confirmed={station.grade !== undefined} />
      <span>{name}</span>
      {station.photos.length > 0 && (
        <span className="quiet figure" title={`${station.photos.length} pictures`}>
          {station.photos.length}
        </span>
      )}
    </NavLink>
  );
});
