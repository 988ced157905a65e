import { bagKind, parseStages, stageWords } from '@true-ledger/core/strip';
import type { FastenersIn } from '@true-ledger/core/salvage';
import { Input } from 'antd';
import { useState, type ReactNode } from 'react';
import { useCase, useRecord } from '../../app/caseContext.js';
import './decide.css';

/** One bag of fasteners: whether they go back, and the stages they are tightened in, written once for their kind. */
export function Fasteners({ fasteners }: { fasteners: FastenersIn }): ReactNode {
  const { view, readOnly } = useCase();
  const record = useRecord();
  const kind = bagKind(fasteners.bag.id);
  const held = view.torques.get(kind)?.value;
  const [text, setText] = useState<string | null>(null);
  const [source, setSource] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const keep = (): void => {
    const now = { text: (text ?? held?.text ?? '').trim(), source: (source ?? held?.source ?? '').trim() };
    if (now.text === (held?.text ?? '') && now.source === (held?.source ?? '')) return;
    const stages = now.text === '' ? null : parseStages(now.text);
    if (stages && !stages.ok) return setProblem(stages.problem.sentence);
    setProblem(null);
    record({ kind: 'torque-set', station: null, body: { fasteners: kind, ...now } });
  };
  return (
    <div className="bag-row">
      <span>
        {fasteners.words}
        {fasteners.bag.reuse === 'never' && <span className="reuse never">new</span>}
        {fasteners.stages && <b className="stages figure">{stageWords(fasteners.stages).join(', then ')}</b>}
      </span>
      <span className="row">
        <Input
          value={text ?? held?.text ?? ''}
          readOnly={readOnly}
          placeholder="30 N·m; 60 N·m; 90°"
          aria-label={`${fasteners.bag.name}: stages of tightening`}
          status={problem ? 'error' : ''}
          maxLength={120}
          style={{ width: 200 }}
          onChange={(e) => setText(e.target.value)}
          onBlur={keep}
          onPressEnter={keep}
        />
        <Input
          value={source ?? held?.source ?? ''}
          readOnly={readOnly}
          placeholder="whose figures"
          aria-label={`${fasteners.bag.name}: whose figures`}
          maxLength={200}
          style={{ width: 150 }}
          onChange={(e) => setSource(e.target.value)}
          onBlur={keep}
          onPressEnter={keep}
        />
      </span>
      {problem && <span className="fault">{problem}</span>}
    </div>
  );
}
