export { type AssemblyStanding, type FastenersIn, type ProofStanding, assemblyBook, limitWords, unproved } from './assembly.js';
export { standingDispositions } from './dispositions.js';
export { machineSheet, machineSheetCsv, partsList } from './machineSheet.js';
export { simulateRoute } from './monteCarlo.js';
export { routesOf } from './routes.js';
export { type Calendar, type Plan, type Planned, dateOf, planIcs, planTasks, spareWords } from './schedule.js';
export { ROUTE_DRAWS, ROUTE_SEED, type SimulatedRoute, daysUntil, planOf, plannedTasks, simulatedRoutes } from './simulate.js';
export { tasksOf } from './tasks.js';
