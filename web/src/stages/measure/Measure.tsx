import { Empty } from 'antd';
import { journalReadings, journalSheet, journalSpecOf, type StationView } from '@true-ledger/core';
import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { useCase } from '../../app/caseContext.js';
import { JournalSheet } from './JournalSheet.js';

/** Measuring: the journals of the crank, one sheet each. */
export function Measure(): ReactNode {
  const { stationId } = useParams();
  const { view, caseId } = useCase();
  const journals = view.stations.filter((s) => s.station.part === 'journal');
  const station = journals.find((s) => s.station.id === stationId) ?? journals[0];
  if (!station)
    return <Empty image={null} description="This engine has no journals to measure in this version: its crank runs on rolling bearings." />;
  return (
    <div className="page measure">
      <div className="page-head">
        <h1>Measure</h1>
        <nav className="sheet-tabs" aria-label="Sheets">
          {journals.map((s) => (
            <Link
              key={s.station.id}
              to={`/case/${caseId}/measure/${s.station.id}`}
              className={s === station ? 'here' : ''}
              aria-current={s === station}
            >
              {s.station.id.startsWith('crank.pin') ? 'Pin' : 'Main'} {s.station.number}
              <i className={`dot ${worst(s, view)}`} title={worst(s, view)} />
            </Link>
          ))}
        </nav>
      </div>
      <JournalSheet key={station.station.id} station={station} next={journals[journals.indexOf(station) + 1]?.station.id ?? null} />
    </div>
  );
}

/** Worst verdict of a sheet, for its tab. */
function worst(s: StationView, view: Parameters<typeof journalSpecOf>[0]): string {
  const { list, gauge } = journalReadings(s);
  if (list.length === 0 || !gauge) return 'not measured';
  const r = journalSheet(list, gauge, journalSpecOf(view, s.station.id));
  const words = [r.min, r.max, r.outOfRound, r.taper].map((v) => v?.verdict?.word);
  return words.includes('outside')
    ? 'outside'
    : words.includes('too close to call')
      ? 'too close to call'
      : words.includes('within')
        ? 'within'
        : 'no limits';
}
