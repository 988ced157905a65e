import type { CalendarEvent } from '../kit/iCalendar.js';
import { linesOf, type EngineRecord, type LogLine } from './lines.js';
import { samplesOf } from './samples.js';
import { dayNumber } from './trends.js';
import { formatCounter } from './words.js';

/** Something that should be done to an engine by a day. */
export interface DueThing {
  readonly id: string;
  readonly what: 'level' | 'result' | 'oil-change' | 'sample';
  readonly day: string;
  readonly words: string;
}

/** Days between two looks at the stick of an engine whose log is kept, and days a laboratory is given. Judgement. */
const LEVEL_DAYS = 30;
const LABORATORY_DAYS = 14;
/** Days a log may sleep before it asks for nothing any more. */
const ASLEEP_DAYS = 400;

const dayOf = (number: number): string => new Date(Math.round(number) * 86_400_000).toISOString().slice(0, 10);

/** What is due of an engine, soonest first, by its standing lines. A log nobody wrote in for over a year asks for nothing but results. */
export function dueOf(engine: EngineRecord, lines: readonly LogLine[], today: string): DueThing[] {
  const due: DueThing[] = [];
  for (const { line, result } of samplesOf(lines))
    if (!result)
      due.push({
        id: `result-${line.id}`,
        what: 'result',
        day: dayOf(dayNumber(line.day) + LABORATORY_DAYS),
        words: `Result of sample ${line.body.reference}, drawn ${line.day}${line.body.laboratory ? `, from ${line.body.laboratory}` : ''}`,
      });
  const newest = lines.at(-1);
  if (!newest || dayNumber(today) - dayNumber(newest.day) > ASLEEP_DAYS) return due;
  const level = linesOf(lines, 'level').at(-1);
  if (level)
    due.push({ id: `level-${level.id}`, what: 'level', day: dayOf(dayNumber(level.day) + LEVEL_DAYS), words: 'Level and look of the oil' });
  const change = linesOf(lines, 'oil-change').at(-1);
  const counted = lines.filter((l) => l.counter !== null);
  const last = counted.at(-1);
  if (engine.changeEvery !== null && change?.counter !== undefined && change.counter !== null && last) {
    const at = change.counter + engine.changeEvery;
    // At the pace of the last year.
    const yearAgo = counted.find((l) => dayNumber(last.day) - dayNumber(l.day) <= 365)!;
    const days = dayNumber(last.day) - dayNumber(yearAgo.day);
    const pace = days > 0 ? (last.counter! - yearAgo.counter!) / days : 0;
    const left = at - last.counter!;
    const day = pace > 0 ? dayNumber(last.day) + left / pace : left <= 0 ? dayNumber(last.day) : null;
    if (day !== null && day - dayNumber(today) < 3650) {
      due.push({
        id: `change-${change.id}`,
        what: 'oil-change',
        day: dayOf(day),
        words: `Oil change, at ${formatCounter(at, engine.counter)}`,
      });
      const sampled = linesOf(lines, 'sample').some((s) => lines.indexOf(s) > lines.indexOf(change));
      if (!sampled)
        due.push({ id: `sample-${change.id}`, what: 'sample', day: dayOf(day), words: 'Sample of the oil, hot, before it is drained' });
    }
  }
  return due.sort((a, b) => a.day.localeCompare(b.day));
}

/** Things due as whole days of a calendar. `of`: mark and name of their engine. */
export const dueEvents = (due: readonly DueThing[], of: string): CalendarEvent[] =>
  due.map((d) => ({ id: d.id, start: d.day, summary: `${of}: ${d.words}`, description: d.words }));
