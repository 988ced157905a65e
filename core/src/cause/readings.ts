import { checkDoubt, type Gauge } from '../measure/gauge.js';
import type { JournalReading } from '../measure/journal.js';
import type { StationView } from '../ledger/views.js';

/** Journal readings of a station and the gauge of the latest one; places left unread are skipped. A gauge that was overdue when it was read is told once. */
export function journalReadings(view: StationView): { list: JournalReading[]; gauge: Gauge | null; overdue: string | null } {
  const list = view.readings.flatMap((r) => (r.value.mm === null ? [] : [{ plane: r.value.plane, axis: r.value.axis, mm: r.value.mm }]));
  const overdue = view.readings.flatMap((r) => checkDoubt(r.value.gauge, r.version.time) ?? []);
  return { list, gauge: view.readings.at(-1)?.value.gauge ?? null, overdue: overdue.at(-1) ?? null };
}
