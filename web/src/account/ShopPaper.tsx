import type { ApiError } from '@true-ledger/contract';
import { App } from 'antd';
import type { ReactNode } from 'react';
import { useSaveShopMutation, useShopQuery } from '../app/api.js';
import { PaperFields, type PaperField } from '../fields/PaperFields.js';

const FIELDS: readonly PaperField[] = [
  { key: 'name', label: 'Name of the shop', max: 80 },
  { key: 'address', label: 'Address of the shop', max: 400, rows: 3 },
  { key: 'contact', label: 'Telephone, mail', max: 200 },
  { key: 'register', label: 'Register or licence', max: 200 },
];

/** Head of the shop's papers. */
export function ShopPaper({ mayWrite }: { mayWrite: boolean }): ReactNode {
  const { data } = useShopQuery();
  const [save, { isLoading }] = useSaveShopMutation();
  const { message } = App.useApp();
  if (!data) return null;
  return (
    <section>
      <h2>Paper of the shop</h2>
      <p className="quiet">
        Stands at the head of accounts and machine-shop sheets made from now on; the name also stands in the seal of every bundle.
      </p>
      <PaperFields
        fields={FIELDS}
        kept={{ ...data.letterhead }}
        disabled={!mayWrite}
        busy={isLoading}
        onKeep={({ name = '', address = '', contact = '', register = '' }) =>
          save({ basedOn: data.version, letterhead: { name, address, contact, register } })
            .unwrap()
            .then(
              () => undefined,
              (e: unknown) => void message.error((e as ApiError).sentence),
            )
        }
      />
    </section>
  );
}
