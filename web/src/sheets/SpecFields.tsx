import { Input } from 'antd';
import { SPEC_KINDS, specFields, type SpecKey, type SpecTexts } from '@true-ledger/core/measure';
import type { ReactNode } from 'react';

/** Fields of one specification: sizes, steps and limits by result, as its sheet can use them. */
export function SpecFields({
  specKey,
  texts,
  onChange,
}: {
  specKey: SpecKey;
  texts: SpecTexts;
  onChange: (texts: SpecTexts) => void;
}): ReactNode {
  const fields = specFields(specKey);
  const field = (key: string, label: string): ReactNode => (
    <label key={key}>
      <span>{label}</span>
      <Input
        value={texts[key] ?? ''}
        maxLength={60}
        aria-label={`${SPEC_KINDS[specKey].name}, ${label}`}
        onChange={(e) => onChange({ ...texts, [key]: e.target.value })}
      />
    </label>
  );
  return (
    <div className="fields">
      {fields.sizes && field('minMm', 'Least size new')}
      {fields.sizes && field('maxMm', 'Largest size new')}
      {fields.roundness && field('outOfRoundMaxMm', 'Out-of-round limit')}
      {fields.roundness && field('taperMaxMm', 'Taper limit')}
      {fields.newWall && field('newWallMm', 'Wall of a new half')}
      {fields.lines.flatMap((line) => [
        ...(line.side === 'upper' ? [] : [field(`${line.id}.lower`, `${line.name}, least (${line.unit})`)]),
        ...(line.side === 'lower' ? [] : [field(`${line.id}.upper`, `${line.name}, most (${line.unit})`)]),
      ])}
      {fields.steps && field('steps', fields.steps === 'undersizesMm' ? 'Undersizes, mm' : 'Oversizes, mm')}
    </div>
  );
}
