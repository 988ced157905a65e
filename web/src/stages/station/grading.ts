import { GRADE_BOOK, type Grade, type StationView } from '@true-ledger/core';
import type { Observation } from '../../app/outbox.js';

/** Entries that confirm a grade; 0 on an untouched place marks it sound by the same act. */
export function gradeObservation(view: StationView, grade: Grade, reason = ''): Observation[] {
  const station = view.station.id;
  return [{ kind: 'grade-confirmed', station, body: { grade, proposed: view.proposal?.grade ?? null, reason, book: GRADE_BOOK.version } }];
}
