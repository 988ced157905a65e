import { Button, Input, Select } from 'antd';
import type { Letter } from '@true-ledger/contract';
import { LETTERS, type LetterTo } from '@true-ledger/core/report';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useLetterQuery } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';
import { useDraft } from '../../app/drafts.js';
import { asProblem } from '../../app/server.js';
import { useTakeFile } from '../../app/takeFile.js';
import { Waiting } from '../../app/Waiting.js';
import { LETTER_NAMES } from '../../fields/letterNames.js';
import './document.css';

/** Letters made from the sentences of the account, read over and changed before they go out. */
export function Letters(): ReactNode {
  const { caseId, state } = useCase();
  const [to, setTo] = useState<LetterTo>('client');
  const { currentData, error } = useLetterQuery({ caseId, to, head: state.head });
  return (
    <div className="letters">
      <label className="wide">
        <span>Letter to</span>
        <Select value={to} onChange={setTo} options={LETTERS.map((value) => ({ value, label: LETTER_NAMES[value] }))} />
      </label>
      {error && <p className="fault">{asProblem(error).sentence}</p>}
      {!error && !currentData && <Waiting what="Wording the letter" />}
      {currentData && <Worded key={to} to={to} made={currentData} />}
    </div>
  );
}

function Worded({ to, made }: { to: LetterTo; made: Letter }): ReactNode {
  const { caseId } = useCase();
  const { takeFile, busy } = useTakeFile(`/api/cases/${caseId}`);
  const name = LETTER_NAMES[to];
  const [addressee, setAddressee] = useDraft(`${name}: address`, made.addressee);
  const [subject, setSubject] = useDraft(`${name}: subject`, made.subject);
  const [body, setBody] = useDraft(`${name}: words`, made.body);
  const changed = addressee !== made.addressee || subject !== made.subject || body !== made.body;
  return (
    <>
      <label className="wide">
        <span>Address</span>
        <Input.TextArea
          value={addressee}
          autoSize={{ minRows: 2, maxRows: 5 }}
          maxLength={600}
          onChange={(e) => setAddressee(e.target.value)}
        />
      </label>
      <label className="wide">
        <span>Subject</span>
        <Input value={subject} maxLength={300} onChange={(e) => setSubject(e.target.value)} />
      </label>
      <label className="wide">
        <span>Letter</span>
        <Input.TextArea value={body} autoSize={{ minRows: 10, maxRows: 24 }} maxLength={8000} onChange={(e) => setBody(e.target.value)} />
      </label>
      <div className="row">
        <Button
          type="primary"
          loading={busy !== null}
          disabled={body.trim() === ''}
          onClick={() => void takeFile('letter.pdf', 'The letter', { addressee, subject, body })}
        >
          Take letter
        </Button>
        <Button
          disabled={!changed}
          onClick={() => {
            setAddressee(made.addressee);
            setSubject(made.subject);
            setBody(made.body);
          }}
        >
          Word it anew
        </Button>
      </div>
      <p className="quiet">
        Made from the same sentences as the account. What you change here is for this letter and stays in this browser; the wording of all
        letters is the shop’s, in <Link to="/set-up">Set-up</Link>.
      </p>
    </>
  );
}
