import { Button } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
import type { Serwist } from '@serwist/window';

/** Keeps the pages in the browser, so that they open without the server, and offers a new version when one is there; it is taken when the hand says so. */
export function NewVersion(): ReactNode {
  const [waiting, setWaiting] = useState<Serwist | null>(null);
  useEffect(() => {
    if (!('serviceWorker' in navigator) || !import.meta.env.PROD) return;
    let looking: ReturnType<typeof setInterval> | undefined;
    void import('@serwist/window').then(({ Serwist }) => {
      const worker = new Serwist('/sw.js');
      worker.addEventListener('waiting', () => setWaiting(worker));
      worker.addEventListener('controlling', (event) => event.isUpdate && window.location.reload());
      void worker.register().catch(() => undefined);
      looking = setInterval(() => void worker.update().catch(() => undefined), 10 * 60_000);
    });
    return () => clearInterval(looking);
  }, []);
  if (!waiting) return null;
  return (
    <div className="new-version" role="status">
      A new version is here. What you wrote and what waits is kept.{' '}
      <Button size="small" onClick={() => waiting.messageSkipWaiting()}>
        Take it
      </Button>
    </div>
  );
}
