import type { Problem } from '../kit/result.js';
import { oneOf, type Schema } from '../kit/schema.js';
import { parseQuantity } from '../units/quantity.js';
import { follows, mismatch } from './define.js';

/** Units a torque is typed in; what was typed says which. */
export const torqueUnit: Schema<string> = oneOf(['N·m', 'lb·ft', 'lb·in']) as never;

/** What is wrong with a torque as typed and as kept in N·m; null: nothing. */
export function torqueFault(b: { readonly text: string; readonly unit: string; readonly newtonMetre: number | null }): Problem | null {
  const read = parseQuantity(b.text, 'torque', b.unit);
  if (!read.ok) return read.problem;
  return follows(read.value.value, b.newtonMetre) ? null : mismatch(b.text);
}
