import { REUSE_WORDS, type FastenerBag } from '@true-ledger/core/strip';
import type { ReactNode } from 'react';
import { NumberField } from '../../fields/NumberField.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import './strip.css';

export function Bag({ bag }: { bag: FastenerBag }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.bags.get(bag.id)?.value;
  const differs = held !== undefined && bag.count !== null && held.counted !== bag.count;
  return (
    <div className="bag-row">
      <span>
        Bag: <b>{bag.name}</b> <span className={`reuse ${bag.reuse}`}>{REUSE_WORDS[bag.reuse]}</span>
      </span>
      <label className="row">
        <span className="quiet">counted</span>
        <NumberField
          min={0}
          max={999}
          whole
          late
          disabled={readOnly}
          style={{ width: 84 }}
          value={held?.counted ?? null}
          placeholder={bag.count === null ? '' : String(bag.count)}
          aria-label={`${bag.name}, counted`}
          onChange={(v) =>
            v !== null && v !== held?.counted && record({ kind: 'bag-set', station: null, body: { bag: bag.id, counted: v, note: '' } })
          }
        />
        <span className={differs ? 'fault' : 'quiet'}>
          {bag.count === null ? '' : differs ? `${bag.count} are usual: one missing or an extra?` : `of ${bag.count} usual`}
        </span>
      </label>
    </div>
  );
}
