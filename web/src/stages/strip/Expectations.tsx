import { Input } from 'antd';
import type { ReactNode } from 'react';
import { Choice } from '../../fields/Choice.js';
import { useDraft } from '../../app/drafts.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import './strip.css';

/** What the builder expects to find under the next part, and whether it held: one line each. */
export function Expectations({ stepId }: { stepId: string }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const [text, setText] = useDraft('Expectation');
  const own = view.expectations.filter((e) => e.value.step === stepId);
  const add = (): void => {
    if (text.trim() === '') return;
    record({ kind: 'expectation', station: null, body: { expectation: crypto.randomUUID(), step: stepId, text: text.trim(), held: null } });
    setText('');
  };
  return (
    <div className="expectations">
      {own.map((e) => (
        <div key={e.value.expectation} className="row">
          <span>Expected: {e.value.text}</span>
          <Choice
            size="small"
            label={`Expected: ${e.value.text}`}
            disabled={readOnly}
            value={e.value.held}
            options={[
              { value: true, label: 'held' },
              { value: false, label: 'did not hold' },
            ]}
            onAnswer={(held) => record({ kind: 'expectation', station: null, body: { ...e.value, held } })}
          />
        </div>
      ))}
      {!readOnly && (
        <Input
          size="small"
          value={text}
          maxLength={500}
          placeholder="What do you expect to find? Written before, it counts for more after"
          aria-label="Expectation"
          onChange={(e) => setText(e.target.value)}
          onPressEnter={add}
          onBlur={add}
        />
      )}
    </div>
  );
}
