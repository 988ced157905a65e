import { key, nullable, number, object, text } from '../../kit/schema.js';
import { proofsOf } from '../../strip/assembly/program.js';
import { parseQuantity } from '../../units/quantity.js';
import { by, defineEntry, follows, mismatch } from '../define.js';

export const proofSet = defineEntry({
  kind: 'proof-set',
  name: 'Proof',
  says: 'What was proved while an engine went together: a reading as typed with its value in the canonical unit (mm, N·m, bar), or `yes` or `no` to what is looked at, value null. Empty text: not proved after all.',
  body: object({ proof: key, text: text(40), unit: text(8), value: nullable(number) }),
  stands: 'case',
  slot: (b) => `proof:${b.proof}`,
  tell: (b) => `${b.proof}: ${b.text === '' ? 'open again' : b.text}${b.unit && b.text ? ` ${b.unit}` : ''}`,
  admit: (b, at) => {
    if (!at.layout) return null;
    const proof = proofsOf(at.layout).get(b.proof);
    if (!proof)
      return {
        code: 'proof-unknown',
        sentence: `The assembly of this engine proves nothing called "${b.proof}". Nothing was recorded.`,
        field: 'proof',
      };
    if (b.text === '') return b.value === null ? null : mismatch(b.text);
    if (proof.quantity === null)
      return (b.text === 'yes' || b.text === 'no') && b.value === null
        ? null
        : { code: 'proof-seen', sentence: 'What is looked at is answered with yes or no. Nothing was recorded.', field: 'text' };
    const read = parseQuantity(b.text, proof.quantity, b.unit || undefined);
    if (!read.ok) return { ...read.problem, sentence: `${read.problem.sentence} Nothing was recorded.` };
    return follows(read.value.value, b.value) ? null : mismatch(b.text);
  },
  ofCase: (all) => ({ proofs: by(all, (b) => b.proof) }),
});
