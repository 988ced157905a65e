import type { Diagnosis } from '../diagnosis/diagnose.js';
import type { EntryBodies } from '../entries/entries.js';
import type { CaseView } from '../case/views.js';
import { standingDispositions } from './dispositions.js';
import { simulateRoute, type Simulated } from './monteCarlo.js';
import { routesOf, type Route } from './routes.js';
import type { Task } from './schedule.js';
import { tasksOf } from './tasks.js';

/** The same seed gives the same figures on every screen and in every account. */
export const ROUTE_SEED = 20261127;
/** Draws of a route. */
export const ROUTE_DRAWS = 10_000;

/** A route with its cost and time as distributions. */
export interface SimulatedRoute {
  readonly route: Route;
  readonly result: Simulated;
}

/** The plan of the case, or one to begin with: from the day after `today`, six bench hours on weekdays. */
export function planOf(view: CaseView, today: Date): EntryBodies['plan-set'] {
  if (view.plan) return view.plan;
  const tomorrow = new Date(today.getTime() + 86_400_000).toISOString().slice(0, 10);
  return { route: null, deadline: null, from: tomorrow, hoursPerDay: 6, workdays: [1, 2, 3, 4, 5], budget: null };
}

/** Days from the start to the end of the deadline's day; null without a deadline, below zero when it lies before the start. */
export function daysUntil(from: string, deadline: string | null): number | null {
  if (deadline === null) return null;
  const days = (Date.parse(deadline) - Date.parse(from)) / 86_400_000;
  return days < 0 ? days : days + 1;
}

/** Tasks of a route as planned, with those moved by hand where they were put. */
export function plannedTasks(view: CaseView, route: Route): Task[] {
  return tasksOf(view, route, view.prices).map((t) => {
    const moved = route.id === view.plan?.route ? view.moved.get(t.id) : undefined;
    return moved === undefined ? t : { ...t, notBeforeHours: moved };
  });
}

/** Cost, time and chance of every route of a case, by seeded draws. About a tenth of a second: for a worker or the server. */
export function simulatedRoutes(view: CaseView, diagnosis: Diagnosis, today: Date): SimulatedRoute[] {
  const { from, hoursPerDay, workdays, deadline } = planOf(view, today);
  return routesOf(view, diagnosis, standingDispositions(view), view.prices).map((route) => ({
    route,
    result: simulateRoute(route.lines, route.hours, {
      seed: ROUTE_SEED,
      draws: ROUTE_DRAWS,
      tasks: plannedTasks(view, route),
      calendar: { from, hoursPerDay, workdays },
      deadlineDays: daysUntil(from, deadline),
      hourCost: view.prices.lines.find((l) => l.key === 'labour')?.price ?? { low: 0, likely: 0, high: 0 },
    }),
  }));
}
