export { closerSights, entriesOfLine, entriesOfPlace } from './lineEntries.js';
export { readLine, type NotedFinding, type NotedLine } from './readLine.js';
