import { iCalendar } from '../kit/iCalendar.js';
import { firstCircle } from '../damage/catalogue/validate.js';
import { fail, ok, type Result } from '../kit/result.js';
import type { Estimate } from '../workshop/prices.js';

/** One piece of work. Bench work takes hours on working days; everything else takes calendar days. */
export interface Task {
  readonly id: string;
  readonly name: string;
  readonly where: 'bench' | 'machine shop' | 'parts' | 'client';
  readonly hours: number;
  readonly days: number;
  readonly after: readonly string[];
  /** Not before this hour of the calendar from the start, when it was moved by hand. */
  readonly notBeforeHours?: number;
  /** How far the days may differ; absent: they are certain. Bench work differs with the hours of the route, of which it is a share. */
  readonly range?: Estimate;
  readonly share?: number;
}

const DAY = 24;

/** A task with its place on the calendar. */
export interface Planned extends Task {
  /** Hours on the calendar from the start: earliest and latest start and finish. */
  readonly start: number;
  readonly finish: number;
  readonly latestStart: number;
  /** Hours it may begin later without the end moving. */
  readonly float: number;
  /** On the chain that decides the end. */
  readonly critical: boolean;
}

/** How a task stands to the end of the plan, in words: what decides it may still have time to spare while the bench is shut. */
export function spareWords(t: Planned): string {
  const spare = `${(t.float / DAY).toFixed(1)} days to spare`;
  if (!t.critical) return spare;
  return t.float < 1 ? 'on the critical path' : `on the critical path, ${spare} until the bench opens`;
}

/** Tasks on the calendar of the bench. */
export interface Plan {
  readonly tasks: readonly Planned[];
  /** Length in calendar hours from the start. */
  readonly length: number;
}

/** When the bench is open. */
export interface Calendar {
  /** ISO date of the first day. */
  readonly from: string;
  readonly hoursPerDay: number;
  /** 1 Monday … 7 Sunday. */
  readonly workdays: readonly number[];
}

const weekday = (calendar: Calendar, day: number): number => {
  const d = new Date(`${calendar.from}T00:00:00Z`);
  d.setUTCDate(d.getUTCDate() + day);
  return d.getUTCDay() === 0 ? 7 : d.getUTCDay();
};

/** Calendar hour at which `hours` of bench work are done when begun at calendar hour `from`; the bench opens at hour 0 of a working day for `hoursPerDay`. */
export function benchFinish(calendar: Calendar, from: number, hours: number): number {
  let at = from;
  let left = hours;
  for (let guard = 0; guard < 20_000; guard++) {
    const day = Math.floor(at / DAY);
    const into = at - day * DAY;
    const open = calendar.workdays.includes(weekday(calendar, day)) ? Math.max(0, calendar.hoursPerDay - into) : 0;
    if (left <= open + 1e-9) return at + left;
    left -= open;
    at = (day + 1) * DAY;
  }
  return at;
}

/** The first hour from `from` on at which the bench is open. */
function benchOpens(calendar: Calendar, from: number): number {
  let at = from;
  for (let guard = 0; guard < 20_000; guard++) {
    const day = Math.floor(at / DAY);
    if (calendar.workdays.includes(weekday(calendar, day)) && at - day * DAY < calendar.hoursPerDay - 1e-9) return at;
    at = (day + 1) * DAY;
  }
  return at;
}

const lasts = (calendar: Calendar, t: Task, from: number): number =>
  t.where === 'bench' ? benchFinish(calendar, from, t.hours) : from + t.days * DAY;

/** Tasks so that each comes after those it waits for; there must be no loop. */
export function inOrder(tasks: readonly Task[]): Task[] {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const order = new Map<string, Task>();
  const visit = (t: Task): void => {
    if (order.has(t.id)) return;
    for (const a of t.after) visit(byId.get(a)!);
    order.set(t.id, t);
  };
  tasks.forEach(visit);
  return [...order.values()];
}

/** Critical path method (Kelley & Walker 1959) on a calendar: earliest times forward, float from the length of the longest chain that follows. A loop of dependencies is refused by name. */
export function planTasks(tasks: readonly Task[], calendar: Calendar): Result<Plan> {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const lost = tasks.flatMap((t) => t.after.filter((a) => !byId.has(a)).map((a) => ({ t, a })))[0];
  if (lost)
    return fail(
      'schedule-task',
      `"${lost.t.name}" waits for "${lost.a}", which is not in the plan. Nothing was planned; take the dependency out.`,
      lost.t.id,
    );
  if (calendar.workdays.length === 0 || calendar.hoursPerDay <= 0)
    return fail('schedule-calendar', 'The bench is open on no day. Give it hours and days; nothing was planned.', 'calendar');
  const next = new Map(tasks.map((t) => [t.id, tasks.filter((x) => x.after.includes(t.id)).map((x) => x.id)]));
  const circle = firstCircle(next);
  if (circle)
    return fail(
      'schedule-loop',
      `These wait for each other: ${circle.map((id) => byId.get(id)?.name ?? id).join(' → ')}. Nothing was planned; take one dependency out.`,
      circle[0],
    );
  const start = new Map<string, number>();
  const finish = new Map<string, number>();
  const order = inOrder(tasks);
  for (const t of order) {
    const free = Math.max(t.notBeforeHours ?? 0, 0, ...t.after.map((a) => finish.get(a)!));
    const begin = t.where === 'bench' && t.hours > 0 ? benchOpens(calendar, free) : free;
    start.set(t.id, begin);
    finish.set(t.id, lasts(calendar, t, begin));
  }
  const length = Math.max(0, ...finish.values());
  // Latest starts: the latest hour from which the task and what follows still end in time, found by bisection since bench time does not run evenly.
  const latestFinish = new Map<string, number>();
  const latestStart = new Map<string, number>();
  for (const t of [...order].reverse()) {
    const by = Math.min(length, ...next.get(t.id)!.map((id) => latestStart.get(id)!));
    latestFinish.set(t.id, by);
    let low = start.get(t.id)!;
    let high = Math.max(low, by);
    for (let k = 0; k < 60 && high - low > 1e-4; k++) {
      const mid = (low + high) / 2;
      if (lasts(calendar, t, mid) <= by + 1e-6) low = mid;
      else high = mid;
    }
    latestStart.set(t.id, low);
  }
  const driving = drivingTasks(order, finish, length);
  return ok({
    length,
    tasks: order.map((t) => {
      const float = Math.max(0, latestStart.get(t.id)! - start.get(t.id)!);
      return {
        ...t,
        start: start.get(t.id)!,
        finish: finish.get(t.id)!,
        latestStart: latestStart.get(t.id)!,
        float,
        critical: driving.has(t.id),
      };
    }),
  });
}

/**
 * The chain that decides the end: the tasks that end last, and before each the one it was waiting for. Not those without float: on a calendar with shut days a task that decides has float up to the
 * next opening of the bench, and would be missed.
 */
function drivingTasks(order: readonly Task[], finish: ReadonlyMap<string, number>, length: number): ReadonlySet<string> {
  const driving = new Set(order.filter((t) => finish.get(t.id)! >= length - 1e-6).map((t) => t.id));
  for (const t of [...order].reverse()) {
    if (!driving.has(t.id)) continue;
    const awaited = Math.max(t.notBeforeHours ?? 0, ...t.after.map((a) => finish.get(a)!));
    for (const a of t.after) if (finish.get(a)! >= awaited - 1e-6) driving.add(a);
  }
  return driving;
}

/** Date and hour of a calendar hour of the plan, ISO without zone, the bench opening at 08:00. */
export function dateOf(calendar: Calendar, hour: number): string {
  const d = new Date(`${calendar.from}T08:00:00Z`);
  d.setUTCMinutes(d.getUTCMinutes() + Math.round(hour * 60));
  return d.toISOString().slice(0, 16);
}

/** The plan as iCalendar, floating times. */
export const planIcs = (plan: Plan, calendar: Calendar, title: string, made: string): string =>
  iCalendar(
    plan.tasks.map((t) => ({
      id: `${t.id}-${calendar.from}`,
      start: dateOf(calendar, t.start),
      end: dateOf(calendar, t.finish),
      summary: `${title}: ${t.name}`,
      description: `${t.where}, ${spareWords(t)}`,
    })),
    'Plan',
    made,
  );
