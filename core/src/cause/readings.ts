import type { Gauge } from '../measure/gauge.js';
import type { JournalReading } from '../measure/journal.js';
import type { StationView } from '../ledger/views.js';

/** Journal readings of a station and the gauge of the latest one; places left unread are skipped. */
export function journalReadings(view: StationView): { list: JournalReading[]; gauge: Gauge | null } {
  const list = view.readings.flatMap((r) => (r.value.mm === null ? [] : [{ plane: r.value.plane, axis: r.value.axis, mm: r.value.mm }]));
  return { list, gauge: view.readings.at(-1)?.value.gauge ?? null };
}
