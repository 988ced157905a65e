/** Something on a calendar. Times floating, ISO without zone (`2026-03-01T08:00`); a day alone (`2026-03-01`) is a whole day. */
export interface CalendarEvent {
  readonly id: string;
  readonly start: string;
  readonly end?: string;
  readonly summary: string;
  readonly description: string;
}

const stamp = (iso: string): string => (iso.length === 10 ? iso.replaceAll('-', '') : `${iso.replace(/[-:]/g, '')}00`);
/** Folds a line of iCalendar at 75 octets and escapes its text (RFC 5545, 3.1 and 3.3.11). */
const fold = (line: string): string => line.match(/.{1,70}/gu)!.join('\r\n ');
const text = (words: string): string => words.replace(/\\/g, '\\\\').replace(/;/g, '\\;').replace(/,/g, '\\,').replace(/\r?\n/g, '\\n');
const at = (name: string, iso: string): string => `${name}${iso.length === 10 ? ';VALUE=DATE' : ''}:${stamp(iso)}`;

/** Events as iCalendar (RFC 5545). `made`: now, ISO 8601; `of`: what they are events of. */
export function iCalendar(events: readonly CalendarEvent[], of: string, made: string): string {
  const lines = events.flatMap((e) => [
    'BEGIN:VEVENT',
    fold(`UID:${e.id}@true-ledger`),
    `DTSTAMP:${stamp(made.slice(0, 16))}Z`,
    at('DTSTART', e.start),
    ...(e.end === undefined ? [] : [at('DTEND', e.end)]),
    fold(`SUMMARY:${text(e.summary)}`),
    fold(`DESCRIPTION:${text(e.description)}`),
    'END:VEVENT',
  ]);
  return ['BEGIN:VCALENDAR', 'VERSION:2.0', `PRODID:-//True Ledger//${of}//EN`, ...lines, 'END:VCALENDAR', ''].join('\r\n');
}
