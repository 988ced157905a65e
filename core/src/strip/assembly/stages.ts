import { fail, ok, type Result } from '../../kit/result.js';
import { formatQuantity, parseQuantity } from '../../units/quantity.js';

/** One stage of tightening: to a torque in N·m, or on by an angle in degrees. */
export type TorqueStage =
  { readonly kind: 'torque'; readonly newtonMetre: number; readonly unit: string } | { readonly kind: 'angle'; readonly degrees: number };

const ANGLE = /^(\d+(?:[.,]\d+)?)\s*(?:°|deg|degrees)$/i;
const PARTED = /\s*(?:;|\+|→|\bthen\b|,(?=\s))\s*/i;
const MOST = 8;

/** Stages as a hand writes them, `30 N·m; 60 N·m; 90°`; a torque without a unit is in N·m. Refused where a stage is neither a torque nor an angle. */
export function parseStages(text: string): Result<TorqueStage[]> {
  const parts = text.split(PARTED).filter((p) => p.trim() !== '');
  if (parts.length === 0 || parts.length > MOST)
    return fail('stages', `Write one to ${MOST} stages, for example "30 N·m; 60 N·m; 90°". Nothing was recorded.`, 'text');
  const stages: TorqueStage[] = [];
  for (const part of parts) {
    const angle = ANGLE.exec(part.trim());
    if (angle) {
      const degrees = Number(angle[1]!.replace(',', '.'));
      if (degrees <= 0 || degrees > 720)
        return fail('stages', `${degrees}° is no angle a fastener is turned by. Nothing was recorded.`, 'text');
      stages.push({ kind: 'angle', degrees });
      continue;
    }
    const torque = parseQuantity(part, 'torque');
    if (!torque.ok)
      return fail(
        'stages',
        `"${part.trim().slice(0, 40)}" is neither a torque nor an angle. Write stages as "30 N·m; 60 N·m; 90°". Nothing was recorded.`,
        'text',
      );
    if (torque.value.value <= 0 || torque.value.value > 5000)
      return fail('stages', `${part.trim()} is no torque a fastener is tightened to. Nothing was recorded.`, 'text');
    stages.push({ kind: 'torque', newtonMetre: torque.value.value, unit: torque.value.unit });
  }
  return ok(stages);
}

/** Stages in words, in the unit they were typed in. */
export function stageWords(stages: readonly TorqueStage[]): string[] {
  return stages.map((s) => (s.kind === 'torque' ? formatQuantity(s.newtonMetre, 'torque', s.unit) : `${s.degrees}° on`));
}
