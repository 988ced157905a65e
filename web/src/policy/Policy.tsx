import { App, Radio } from 'antd';
import { Dialog } from '../app/Dialog.js';
import type { Me } from '@true-ledger/contract';
import { positionOf, SCHOOLS, type School } from '@true-ledger/core/damage';
import { useState, type ReactNode } from 'react';
import { ReasonField } from '../fields/ReasonField.js';
import { useDraft } from '../app/drafts.js';
import { usePolicyQuery, useSavePolicyMutation } from '../app/api.js';
import { asProblem } from '../app/server.js';
import './policy.css';

/** Where builders disagree: the position this shop takes on each question, and why. A case takes them over when it is opened and may depart from them with a reason. */
export function Policy({ me }: { me: Me }): ReactNode {
  const { data: changes = [] } = usePolicyQuery();
  const [save, { isLoading }] = useSavePolicyMutation();
  const { message } = App.useApp();
  const [asking, setAsking] = useState<{ school: School; position: string } | null>(null);
  const [reason, setReason] = useDraft('Reason');
  const chosen = new Map([...changes].reverse().map((c) => [c.question, c.position]));
  const mayEdit = me.account.role === 'owner';
  const keep = async (): Promise<void> => {
    if (!asking) return;
    try {
      await save({ question: asking.school.id, position: asking.position, reason: reason.trim() }).unwrap();
      setAsking(null);
      setReason('');
    } catch (error) {
      void message.error(`The policy was not kept. ${asProblem(error).sentence}`);
    }
  };
  return (
    <div className="page">
      <div className="page-head">
        <h1>Policy</h1>
        <span className="quiet">
          Builders disagree on these. A case takes the shop’s positions over when it is opened; it may depart from them with a reason.
          {mayEdit ? '' : ' The owner sets them.'}
        </span>
      </div>
      <div className="policy-list">
        {SCHOOLS.map((s) => {
          const position = positionOf(s.id, chosen);
          const last = changes.find((c) => c.question === s.id);
          return (
            <section key={s.id} className="pane" aria-label={s.question}>
              <h2>{s.question}</h2>
              <Radio.Group
                value={position}
                disabled={!mayEdit}
                onChange={(e) => setAsking({ school: s, position: e.target.value as string })}
                options={s.positions.map((p) => ({ value: p.id, label: `${p.text}${p.id === s.standard ? ' (standard)' : ''}` }))}
                vertical
              />
              <p className="quiet">
                {s.why} It bears on: {s.effect.charAt(0).toLowerCase() + s.effect.slice(1)}
              </p>
              {last && (
                <p className="quiet">
                  {last.by}, {new Date(last.time).toLocaleString('sv-SE').slice(0, 16)}: {last.reason}
                </p>
              )}
            </section>
          );
        })}
      </div>
      <Dialog
        open={asking !== null}
        title={asking?.school.question}
        okText="Keep as policy"
        okButtonProps={{ disabled: reason.trim().length < 3, loading: isLoading }}
        onCancel={() => setAsking(null)}
        onOk={() => void keep()}
      >
        <p>{asking?.school.positions.find((p) => p.id === asking.position)?.text}</p>
        <p className="quiet">Cases already open stay as they are.</p>
        <ReasonField value={reason} onChange={setReason} most={500} />
      </Dialog>
    </div>
  );
}
