import { Alert } from 'antd';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { DoorMark } from '../account/SignIn.js';
import { useSharedAccountQuery } from '../app/api.js';
import { Waiting } from '../app/Waiting.js';
import { asProblem } from '../app/server.js';
import './shared.css';

const minute = (iso: string): string => new Date(iso).toLocaleString('sv-SE').slice(0, 16);

/** What somebody with a link and no account sees: one signed version, with what it can be checked against. */
export function Shared(): ReactNode {
  const { token = '' } = useParams();
  const { data, error, isLoading } = useSharedAccountQuery(token);
  if (isLoading) return <Waiting what="Opening the link" />;
  return (
    <main className="door shared">
      <DoorMark />
      {data ? (
        <>
          <h1>Account {data.number}</h1>
          <p>{data.title}</p>
          <table className="lines">
            <tbody>
              <tr>
                <th scope="row">Version</th>
                <td>{data.version}</td>
              </tr>
              <tr>
                <th scope="row">Signed</th>
                <td>
                  {data.by}, <span className="figure">{minute(data.time)}</span>
                </td>
              </tr>
              <tr>
                <th scope="row">SHA-256 of the PDF{data.cover ? ' without its cover sheet' : ''}</th>
                <td className="figure hash">{data.sha256}</td>
              </tr>
              <tr>
                <th scope="row">Ledger head</th>
                <td className="figure hash">{data.head}</td>
              </tr>
              <tr>
                <th scope="row">Link ends</th>
                <td className="figure">{minute(data.expires)}</td>
              </tr>
            </tbody>
          </table>
          {data.newest > data.version && (
            <Alert
              type="warning"
              title={`Version ${data.newest} has been signed since. Ask the workshop for it.`}
              style={{ marginBottom: 12 }}
            />
          )}
          <a className="shared-open" href={`/api/shared/${token}/account.pdf`} download>
            Take the account (PDF)
          </a>
        </>
      ) : (
        <>
          <h1>Nothing here</h1>
          <Alert type="error" role="alert" title={asProblem(error).sentence} />
        </>
      )}
    </main>
  );
}
