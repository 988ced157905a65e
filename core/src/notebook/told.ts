import { feature } from '../cause/data/features.js';
import { applies, type EngineTag } from '../engine/tags.js';
import type { WordRoles } from './chips.js';
import { isNegated, type Clause } from './clauses.js';
import { TOLD_SAYINGS } from './lexicon/told.js';
import { wordAt, type ReadText } from './words.js';

/** What a line tells of the engine as a whole. Beside a finding only what fluids and checks show counts: the rest of its words describe the finding. */
export function toldFeatures(
  text: ReadText,
  clauses: readonly Clause[],
  tags: ReadonlySet<EngineTag>,
  beside: boolean,
  roles: WordRoles,
): Array<{ readonly feature: string; readonly present: boolean }> {
  const told: Array<{ feature: string; present: boolean }> = [];
  for (const saying of TOLD_SAYINGS) {
    const m = saying.says.exec(text.text);
    const record = feature(saying.feature);
    if (!m || m[0] === '' || !record || !applies(record.needs, tags)) continue;
    if (saying.about && !saying.about.test(text.text)) continue;
    if (beside && !/^(?:fluid|measured)\./.test(saying.feature)) continue;
    const from = wordAt(text, m.index);
    const clause = clauses.find((c) => from >= c.from && from < c.to);
    const negated = saying.present && clause !== undefined && isNegated(text, from, clause);
    roles.mark(from, wordAt(text, m.index + m[0].length - 1) + 1, 'told', record.name);
    told.push({ feature: saying.feature, present: saying.present && !negated });
  }
  return told;
}
