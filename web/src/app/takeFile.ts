import { App } from 'antd';
import { useCallback, useState } from 'react';
import { asProblem } from './api.js';
import { saveBlob } from './saveBlob.js';

/** Fetches a file under an address of the server and hands it to the browser to keep; says why when it was not made. `busy` is the path under way. */
export function useTakeFile(under: string): {
  takeFile: (path: string, what: string) => Promise<void>;
  busy: string | null;
  /** Name of the making, by which the progress of a PDF is asked. */
  run: string | null;
} {
  const { message } = App.useApp();
  const [busy, setBusy] = useState<string | null>(null);
  const [run, setRun] = useState<string | null>(null);
  const takeFile = useCallback(
    async (path: string, what: string): Promise<void> => {
      setBusy(path);
      try {
        const making = crypto.randomUUID();
        setRun(making);
        const response = await fetch(`${under}/${path}?run=${making}`);
        if (!response.ok) throw asProblem({ data: await response.json().catch(() => null) });
        const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? path;
        saveBlob(name, await response.blob());
      } catch (error) {
        void message.error(`${what} was not made. ${asProblem(error).sentence}`);
      } finally {
        setBusy(null);
        setRun(null);
      }
    },
    [under, message],
  );
  return { takeFile, busy, run };
}
