export { closerSights, entriesOfLine } from './lineEntries.js';
export { readLine, type NotedFinding, type NotedLine } from './readLine.js';
