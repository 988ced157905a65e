import { Button, Segmented, Select } from 'antd';
import { gradeText } from '@true-ledger/core/damage';
import { looksLike, standingGrade, type StationView } from '@true-ledger/core/case';
import { useMemo, useState, type ReactNode } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useReferencesQuery } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';
import { useKeys } from '../../app/keys.js';
import { comparisons } from '../station/comparisons.js';
import { PART_WINDOWS, type SurfacePart } from '../../surface/surfaceParts.js';
import { useSurfaceImages } from '../../surface/surfaceImages.js';
import { ComparedSurface, type Cursor, type Shown } from './ComparedSurface.js';
import './compare.css';

const MOST = 12;
const REFERENCE = 'ref-';
/** Width a surface is fetched in, px: twice as wide as it is shown. */
const PICTURE_PX = 1120;
/** Width of the widest surface, px; of edges, which lie one below the other, so that the same place of the arc lies in one line. */
const SURFACE_PX = 560;
const EDGE_PX = 1080;
const isEdge = (part: SurfacePart): boolean => part === 'front-edge' || part === 'rear-edge';

/** Surfaces of one kind, or one part of each, on one scale, with one cursor over all. */
export function Compare(): ReactNode {
  const { ids = '' } = useParams();
  const { view, caseId } = useCase();
  const navigate = useNavigate();
  const { data: references = [] } = useReferencesQuery();
  const [cursor, setCursor] = useState<Cursor | null>(null);
  const [shown, setShown] = useState<Shown>('picture');
  const chosen = ids.split(',').filter(Boolean).slice(0, MOST);
  const [query, setQuery] = useSearchParams();
  const part = (query.get('part') ?? 'whole') in PART_WINDOWS ? ((query.get('part') ?? 'whole') as SurfacePart) : 'whole';
  const images = useSurfaceImages(caseId);
  const first = view.byId.get(chosen[0] ?? '');
  const alike = useMemo(() => (first ? looksLike(first, view.stations).slice(0, 8) : []), [first, view]);
  const rows = isEdge(part) ? 'edges' : `n${Math.min(5, chosen.length)}`;
  const go = (list: readonly string[]): void =>
    void navigate(`/case/${caseId}/compare/${list.join(',')}${part === 'whole' ? '' : `?part=${part}`}`, { replace: true });
  useKeys([
    { keys: 'Escape', what: 'Back to the place', run: () => void navigate(`/case/${caseId}/station/${chosen[0] ?? ''}`) },
    {
      keys: ' ',
      what: 'Picture, what was read, or both',
      run: () => setShown((s) => (s === 'picture' ? 'map' : s === 'map' ? 'both' : 'picture')),
    },
  ]);
  if (!first?.station.surface)
    return (
      <div className="page">
        <h1>Side by side</h1>
        <p className="quiet">
          Choose a place with a surface on the <Link to={`/case/${caseId}/bench`}>bench</Link> and press = there.
        </p>
      </div>
    );
  const frame = first.station.surface;
  const same = view.stations.filter((s) => s.station.part === first.station.part && s.station.surface);
  const beside = comparisons(view.layout, first.station, view.byId).filter((c) => c.view.station.part === first.station.part);
  const ofPart = references.filter((r) => r.part === first.station.part);
  const label = (s: StationView): string => {
    const grade = standingGrade(s);
    return `${s.station.name}${grade === null ? '' : `, ${gradeText(grade)}`}`;
  };
  const options = [
    { label: 'Near it', options: beside.map((c) => ({ value: c.view.station.id, label: `${c.view.station.name} (${c.why})` })) },
    {
      label: 'Looks like it',
      options: alike.map((a) => ({ value: a.view.station.id, label: `${a.view.station.name}, ${Math.round(a.alike * 100)} % alike` })),
    },
    { label: 'Parts as they should be', options: ofPart.map((r) => ({ value: REFERENCE + r.id, label: r.name })) },
    { label: 'All of its kind', options: same.map((s) => ({ value: s.station.id, label: label(s) })) },
  ].filter((g) => g.options.length > 0);
  const widest = Math.max(...chosen.map((id) => view.byId.get(id)?.station.surface?.widthMm ?? frame.widthMm));
  return (
    <div className="page compare">
      <div className="page-head">
        <h1>Side by side</h1>
        <Segmented
          value={shown}
          onChange={setShown}
          options={[
            { value: 'picture', label: 'Picture' },
            { value: 'map', label: 'What was read and drawn' },
            { value: 'both', label: 'Both' },
          ]}
        />
        <Segmented
          value={part}
          onChange={(p: SurfacePart) => setQuery(p === 'whole' ? {} : { part: p }, { replace: true })}
          options={Object.entries(PART_WINDOWS).map(([value, { name }]) => ({ value: value as SurfacePart, label: name }))}
          aria-label="Part of the surface"
        />
        {chosen.length < MOST && (
          <Select
            value={null}
            placeholder="Put another beside it"
            aria-label="Put another beside it"
            showSearch={{ optionFilterProp: 'label' }}
            style={{ width: 300 }}
            onChange={(id: string | null) => id && !chosen.includes(id) && go([...chosen, id])}
            options={options}
          />
        )}
      </div>
      <div className={`compare-grid ${rows}`}>
        {chosen.map((id) => {
          const station = view.byId.get(id);
          const reference = id.startsWith(REFERENCE) ? ofPart.find((r) => REFERENCE + r.id === id) : undefined;
          if (!station && !reference) return null;
          return (
            <ComparedSurface
              key={id}
              caseId={caseId}
              station={station ?? null}
              reference={reference ?? null}
              like={first}
              shown={shown}
              window={PART_WINDOWS[part]}
              px={isEdge(part) ? EDGE_PX : SURFACE_PX}
              photographed={station ? images.photographed(station, PICTURE_PX) : null}
              widest={widest}
              cursor={cursor}
              onCursor={setCursor}
              alike={alike.find((a) => a.view.station.id === id) ?? null}
              onRemove={chosen.length > 1 ? () => go(chosen.filter((c) => c !== id)) : null}
            />
          );
        })}
      </div>
      {chosen.length < 2 && (
        <section className="pane alike" aria-label="Looks like it">
          <h2>Looks like it in this engine</h2>
          {alike.length === 0 ? (
            <p className="quiet">Nothing of its kind shows the same yet. Read or draw more of them.</p>
          ) : (
            <ol>
              {alike.map((a) => (
                <li key={a.view.station.id}>
                  <Button type="link" onClick={() => go([...chosen, a.view.station.id])}>
                    {a.view.station.name}
                  </Button>
                  <span className="figure">{Math.round(a.alike * 100)} % alike</span> <span className="quiet">{a.why}</span>
                </li>
              ))}
            </ol>
          )}
        </section>
      )}
    </div>
  );
}
