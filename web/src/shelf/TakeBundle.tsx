import { Alert, Button, Upload } from 'antd';
import { Dialog } from '../app/Dialog.js';
import type { ImportAnswer } from '@true-ledger/contract';
import { useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useTakeBundleMutation } from '../app/api.js';
import { asProblem } from '../app/server.js';

const OUTCOMES: Readonly<Record<ImportAnswer['outcome'], string>> = {
  new: 'The case was taken in',
  continued: 'The case was here already; the entries made since were added to it',
  same: 'The case is here already with everything the bundle holds; nothing was changed',
};

/** Takes a case in from a bundle. */
export function TakeBundle(): ReactNode {
  const [take, { data, error, isLoading, reset }] = useTakeBundleMutation();
  const [name, setName] = useState('');
  const running = useRef<{ abort: () => void } | null>(null);
  const close = (): void => {
    running.current?.abort();
    reset();
    setName('');
  };
  return (
    <>
      <Upload
        accept=".zip,application/zip"
        showUploadList={false}
        beforeUpload={(file) => {
          setName(file.name);
          running.current = take(file);
          return false;
        }}
      >
        <Button>Take in a bundle</Button>
      </Upload>
      <Dialog open={name !== ''} title={name} footer={<Button onClick={close}>{isLoading ? 'Stop' : 'Close'}</Button>} onCancel={close}>
        {isLoading && <p role="status">Checking every entry, picture and signed account before anything is written …</p>}
        {error && <Alert type="error" role="alert" title={asProblem(error).sentence} />}
        {data && (
          <Alert
            type="success"
            role="status"
            title={`${OUTCOMES[data.outcome]}: ${data.entries} entries.`}
            description={
              <>
                <div className="figure">head {data.head.slice(0, 24)}…</div>
                <Link to={`/case/${data.caseId}/bench`}>Open case {data.number}</Link>
              </>
            }
          />
        )}
      </Dialog>
    </>
  );
}
