export { checkEntry } from './admit.js';
