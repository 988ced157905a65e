import { Button } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';

type Upgrade = (reload?: boolean) => Promise<void>;

/** Keeps the pages in the browser, so that they open without the server, and offers a new version when one is there; it is taken when the hand says so. */
export function NewVersion(): ReactNode {
  const [upgrade, setUpgrade] = useState<{ readonly take: Upgrade } | null>(null);
  useEffect(() => {
    if (!('serviceWorker' in navigator) || !import.meta.env.PROD) return;
    let looking: ReturnType<typeof setInterval> | undefined;
    void import('virtual:pwa-register').then(({ registerSW }) => {
      const take = registerSW({
        onNeedRefresh: () => setUpgrade({ take }),
        onRegisteredSW: (_url, registration) => {
          looking = setInterval(() => void registration?.update().catch(() => undefined), 10 * 60_000);
        },
      });
    });
    return () => clearInterval(looking);
  }, []);
  if (!upgrade) return null;
  return (
    <div className="new-version" role="status">
      A new version is here. What you wrote and what waits is kept.{' '}
      <Button size="small" onClick={() => void upgrade.take(true)}>
        Take it
      </Button>
    </div>
  );
}

/** Forgets what was kept of cases, when somebody signs out. */
export async function forgetKnown(): Promise<void> {
  if (typeof caches !== 'undefined') await caches.delete('known').catch(() => false);
}
