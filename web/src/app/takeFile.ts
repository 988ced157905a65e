import { App } from 'antd';
import { useCallback, useState } from 'react';
import { saveBlob } from './saveBlob.js';
import { fetchFile } from './server.js';

/** Fetches a file under an address of the server and hands it to the browser to keep; says why when it was not made. With `send` the file is made of that. `busy` is the path under way. */
export function useTakeFile(under: string): {
  takeFile: (path: string, what: string, send?: object) => Promise<void>;
  busy: string | null;
  /** Name of the making, by which the progress of a PDF is asked. */
  run: string | null;
} {
  const { message } = App.useApp();
  const [busy, setBusy] = useState<string | null>(null);
  const [run, setRun] = useState<string | null>(null);
  const takeFile = useCallback(
    async (path: string, what: string, send?: object): Promise<void> => {
      setBusy(path);
      try {
        const making = crypto.randomUUID();
        setRun(making);
        const file = send
          ? await fetchFile(`${under}/${path}`, {
              method: 'POST',
              headers: { 'content-type': 'application/json' },
              body: JSON.stringify(send),
            })
          : await fetchFile(`${under}/${path}?run=${making}`);
        if (file.ok) saveBlob(file.value.name ?? path, file.value.blob);
        else void message.error(`${what} was not made. ${file.problem.sentence}`);
      } finally {
        setBusy(null);
        setRun(null);
      }
    },
    [under, message],
  );
  return { takeFile, busy, run };
}
