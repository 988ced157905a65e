import type { ApiError } from '@true-ledger/contract';
import { App } from 'antd';
import type { ReactNode } from 'react';
import { usePartiesQuery, useSavePartiesMutation } from '../../app/api.js';
import { useCase } from '../../app/caseContext.js';
import { PaperFields, type PaperField } from '../../fields/PaperFields.js';
import './intake.css';

const FIELDS: readonly PaperField[] = [
  { key: 'client.name', label: 'Client', max: 120 },
  { key: 'client.address', label: 'Address of the client', max: 400, rows: 3 },
  { key: 'client.contact', label: 'Contact of the client', max: 200 },
  { key: 'engine.make', label: 'Make of the engine', max: 80 },
  { key: 'engine.model', label: 'Model of the engine', max: 80 },
  { key: 'engine.serial', label: 'Serial number of the engine', max: 80 },
  { key: 'engine.hours', label: 'Hours or distance run', max: 80 },
  { key: 'engine.fitted', label: 'Fitted in', max: 160 },
];

/** For whom, and of which engine: beside the ledger. */
export function PartiesPane(): ReactNode {
  const { caseId, readOnly } = useCase();
  const { data } = usePartiesQuery(caseId, { skip: readOnly });
  const [save, { isLoading }] = useSavePartiesMutation();
  const { message } = App.useApp();
  if (readOnly || !data) return null;
  const { client, engine } = data.parties;
  const kept = Object.fromEntries(
    Object.entries({ client, engine }).flatMap(([of, lines]) => Object.entries(lines).map(([key, text]) => [`${of}.${key}`, text])),
  );
  return (
    <section className="pane parties">
      <h2>Client and engine</h2>
      <p className="quiet">
        Not in the ledger: in no bundle, no account and behind no link. They stand on the cover sheet, which goes with an account when you
        choose it.
      </p>
      <PaperFields
        fields={FIELDS}
        kept={kept}
        busy={isLoading}
        onKeep={(v) => {
          const said = (key: string): string => v[key] ?? '';
          return save({
            caseId,
            basedOn: data.version,
            parties: {
              client: { name: said('client.name'), address: said('client.address'), contact: said('client.contact') },
              engine: {
                make: said('engine.make'),
                model: said('engine.model'),
                serial: said('engine.serial'),
                hours: said('engine.hours'),
                fitted: said('engine.fitted'),
              },
            },
          })
            .unwrap()
            .then(
              () => undefined,
              (e: unknown) => void message.error((e as ApiError).sentence),
            );
        }}
      />
    </section>
  );
}
