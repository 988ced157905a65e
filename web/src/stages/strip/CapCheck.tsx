import { Button, Checkbox, Input, Radio } from 'antd';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import './strip.css';

export function CapCheck({ cap }: { cap: string }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const held = view.caps.get(cap)?.value;
  const [number, setNumber] = useState(held?.number ?? '');
  const [agrees, setAgrees] = useState(held?.agrees ?? true);
  const [joint, setJoint] = useState<'imperceptible' | 'step'>(held?.joint ?? 'imperceptible');
  const keep = (): void => record({ kind: 'cap-checked', station: null, body: { cap, number: number.trim(), agrees, joint, note: '' } });
  const same = held && held.number === number.trim() && held.agrees === agrees && held.joint === joint;
  return (
    <section className="cap-check" aria-label="Cap: number, direction, joint">
      <h3>Cap: number, direction, joint</h3>
      <div className="row">
        <Input
          style={{ width: 150 }}
          value={number}
          disabled={readOnly}
          maxLength={40}
          placeholder="Stamped number"
          aria-label="Number stamped on the cap"
          onChange={(e) => setNumber(e.target.value)}
          onPressEnter={keep}
        />
        <Checkbox checked={agrees} disabled={readOnly} onChange={(e) => setAgrees(e.target.checked)}>
          Number and direction agree
        </Checkbox>
        <Radio.Group
          disabled={readOnly}
          value={joint}
          options={[
            { value: 'imperceptible', label: 'Joint imperceptible' },
            { value: 'step', label: 'A step to feel' },
          ]}
          onChange={(e) => setJoint(e.target.value as 'step')}
        />
        {!readOnly && (
          <Button onClick={keep} disabled={same === true}>
            {held ? 'Correct the cap' : 'Keep the cap'}
          </Button>
        )}
      </div>
      {(joint === 'step' || !agrees) && (
        <p className="caution">A wrong cap or one turned round: look at the parting lines of its shells for contact on opposite sides.</p>
      )}
    </section>
  );
}
