import { limitWords, type ProofStanding } from '@true-ledger/core/salvage';
import { parseQuantity, QUANTITIES } from '@true-ledger/core/units';
import { Input, Radio } from 'antd';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import './decide.css';

const WORDS = { open: '', within: 'within', outside: 'outside', 'no limit': 'no limit', no: 'no' } as const;

/** One thing to prove: its limits, a cell for the figure or yes and no, and how it stands. */
export function AssemblyProof({ standing }: { standing: ProofStanding }): ReactNode {
  const { readOnly } = useCase();
  const record = useRecord();
  const { proof, held, state } = standing;
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (text: string, unit: string, value: number | null): void => {
    setProblem(null);
    setTyped(null);
    record({ kind: 'proof-set', station: null, body: { proof: proof.id, text, unit, value } });
  };
  const take = (): void => {
    if (typed === null || proof.quantity === null) return;
    const text = typed.trim();
    if (text === (held?.value.text ?? '')) return setTyped(null);
    if (text === '') return put('', '', null);
    const read = parseQuantity(text, proof.quantity, held?.value.unit || undefined);
    if (!read.ok) return setProblem(read.problem.sentence);
    put(text, read.value.unit, read.value.value);
  };
  return (
    <div className="proof-row">
      <span>
        {proof.name}
        <span className="quiet">
          {proof.how && ` ${proof.how}`} {limitWords(standing)}
          {standing.limit.source && ` (${standing.limit.source})`}
        </span>
      </span>
      <span className="row">
        {proof.quantity === null ? (
          <Radio.Group
            disabled={readOnly}
            value={held?.value.text ?? null}
            aria-label={proof.name}
            options={[
              { value: 'yes', label: 'Yes' },
              { value: 'no', label: 'No' },
            ]}
            onChange={(e) => put(e.target.value as string, '', null)}
          />
        ) : (
          <Input
            className="figure"
            value={typed ?? held?.value.text ?? ''}
            readOnly={readOnly}
            aria-label={proof.name}
            status={problem ? 'error' : ''}
            suffix={held?.value.unit || QUANTITIES[proof.quantity].canonical}
            maxLength={40}
            inputMode="decimal"
            style={{ width: 140 }}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={take}
            onPressEnter={take}
          />
        )}
        <b className={`verdict-word ${state === 'no' ? 'outside' : state}`}>{WORDS[state]}</b>
      </span>
      {problem && <span className="fault">{problem}</span>}
    </div>
  );
}
