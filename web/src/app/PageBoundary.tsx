import { Alert, Button } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { useLocation } from 'react-router';
import { fetchJson } from './server.js';

/** Words browsers use when a script of the page cannot be had: the server is away, or an upgrade has taken it away. */
const NOT_FETCHED =
  /dynamically imported module|Importing a module script failed|error loading dynamically|Failed to fetch|Unable to preload/i;

/** Shows what to do where a page fails; header, queue and everything kept in the browser stay. */
export function PageBoundary({ children }: { children: ReactNode }): ReactNode {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary FallbackComponent={Failed} resetKeys={[pathname]}>
      {children}
    </ErrorBoundary>
  );
}

/** Does the server answer? */
async function serverAnswers(): Promise<boolean> {
  return (await fetchJson('/api/health', { cache: 'no-store' })).ok;
}

function Failed({ error, resetErrorBoundary }: FallbackProps): ReactNode {
  const missing = NOT_FETCHED.test(error instanceof Error ? error.message : String(error));
  const [away, setAway] = useState(false);
  const again = async (): Promise<void> => {
    if (!missing) return resetErrorBoundary();
    // A script that could not be had is only asked for anew by a new page; drafts and what waits are kept.
    if (await serverAnswers()) window.location.reload();
    else setAway(true);
  };
  useEffect(() => {
    if (!missing) return;
    const timer = setInterval(() => void serverAnswers().then((up) => up && window.location.reload()), 4000);
    return () => clearInterval(timer);
  }, [missing]);
  return (
    <div className="page" role="alert">
      <Alert
        type={missing ? 'warning' : 'error'}
        title={missing ? 'This page could not be fetched.' : 'This page has failed.'}
        description={
          missing
            ? `The server does not answer, or it was upgraded while this was open. What you wrote is kept in this browser. It is tried again by itself${away ? '; just now there was no answer' : ''}.`
            : 'What was recorded is safe, and what you wrote is kept in this browser. Try again; if it fails again, another page of the case will do meanwhile.'
        }
        action={
          <Button type="primary" onClick={() => void again()}>
            Try again
          </Button>
        }
      />
    </div>
  );
}
