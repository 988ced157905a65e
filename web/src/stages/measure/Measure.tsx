import { Empty } from 'antd';
import type { LengthUnit } from '@true-ledger/core/units';
import { measureProgram, PLACE_GROUPS, roundOf, roundsOf, worstWord, type PlaceGroup, type SheetPlace } from '@true-ledger/core/measure';
import type { CaseView } from '@true-ledger/core/case';
import { measurePlace, placeReadings } from '@true-ledger/core/measured';
import { useRef, type ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { PlaceCharts } from './charts/PlaceCharts.js';
import { useEntryChoices } from './entryChoices.js';
import { GaugeEntry } from './GaugeEntry.js';
import { Results } from './Results.js';
import { nextOpenPlace, NO_MEMORY, useEntry, type EntryMemory } from './useEntry.js';
import './entry.css';
import './measure.css';

/** A place in an address: the sheet's id with its slash written so that it stays one step of the path. */
export const placePath = (place: SheetPlace): string => place.id.replace('/', '~');

function placeOfPath(program: readonly SheetPlace[], path: string | undefined): SheetPlace | undefined {
  return program.find((p) => placePath(p) === path) ?? program.find((p) => p.station === path) ?? program[0];
}

/** Measuring: rounds of the engine, the places of one round, and the sheet of one place. */
export function Measure(): ReactNode {
  const { placePath: path } = useParams();
  const { view } = useCase();
  const memory = useRef<EntryMemory>({ ...NO_MEMORY });
  const place = placeOfPath(measureProgram(view.layout), path);
  if (!place) return <Empty image={null} description="Nothing of this engine can be measured by the sheets there are." />;
  return (
    <div className="page measure">
      <Rounds place={place} />
      <PlaceSheet key={place.id} place={place} memory={memory.current} />
    </div>
  );
}

function Rounds({ place }: { place: SheetPlace }): ReactNode {
  const { view, caseId } = useCase();
  const rounds = roundsOf(view.layout);
  const round = roundOf(view.layout, place);
  const to = (p: SheetPlace): string => `/case/${caseId}/measure/${placePath(p)}`;
  const groups = [...new Set(rounds.map((r) => r.group))];
  const first = (g: PlaceGroup): SheetPlace => rounds.find((r) => r.group === g)!.places[0]!;
  return (
    <>
      <div className="page-head">
        <h1>Measure</h1>
        <nav className="group-tabs" aria-label="Parts">
          {groups.map((g) => (
            <Link key={g} to={to(first(g))} className={g === round.group ? 'here' : ''} aria-current={g === round.group}>
              {PLACE_GROUPS[g]}
            </Link>
          ))}
          <Link to={`/case/${caseId}/measure/all`}>Whole engine</Link>
        </nav>
        <nav className="round-tabs" aria-label="Sheets">
          {rounds
            .filter((r) => r.group === round.group)
            .map((r) => (
              <Link key={r.id} to={to(r.places[0]!)} className={r === round ? 'here' : ''} aria-current={r === round}>
                {r.name} <span className="figure quiet">{progress(view, r.places)}</span>
              </Link>
            ))}
        </nav>
      </div>
      {round.places.length > 1 && (
        <nav className="sheet-tabs" aria-label="Places">
          {round.places.map((p) => {
            const word = worstWord(measurePlace(view, p).outcome);
            return (
              <Link key={p.id} to={to(p)} className={p === place ? 'here' : ''} aria-current={p === place}>
                {p.short}
                <i className={`dot ${word}`} title={word} />
              </Link>
            );
          })}
        </nav>
      )}
    </>
  );
}

function progress(view: CaseView, places: readonly SheetPlace[]): string {
  return `${places.filter((p) => placeReadings(view, p).length > 0).length}/${places.length}`;
}

function PlaceSheet({ place, memory }: { place: SheetPlace; memory: EntryMemory }): ReactNode {
  const { view, caseId } = useCase();
  const navigate = useNavigate();
  const [choices, choose] = useEntryChoices();
  const turn = (way: 'on' | 'back'): boolean => {
    const { places } = roundOf(view.layout, place);
    const to = way === 'on' ? nextOpenPlace(view, place, choices) : (places[places.indexOf(place) - 1] ?? null);
    if (!to) return false;
    void navigate(`/case/${caseId}/measure/${placePath(to)}`);
    return true;
  };
  const entry = useEntry(place, choices, memory, turn);
  const outcome = measurePlace(view, place);
  const unit: LengthUnit = entry.unit === 'in' ? 'in' : 'mm';
  return (
    <div className="sheet">
      <GaugeEntry place={place} entry={entry} choices={choices} onChoose={choose} onTurn={turn} />
      <div className="stack">
        <PlaceCharts outcome={outcome} readings={placeReadings(view, place)} />
        <Results outcome={outcome} unit={unit} />
      </div>
    </div>
  );
}
