import { App, Button, Select } from 'antd';
import type { ApiError } from '@true-ledger/contract';
import { LETTER_FIELDS, LETTER_TEMPLATES, LETTERS, type LetterTemplate, type LetterTo } from '@true-ledger/core/report';
import { useState, type ReactNode } from 'react';
import { useSaveLettersMutation, useShopQuery } from '../app/api.js';
import { LETTER_NAMES } from '../fields/letterNames.js';
import { PaperFields } from '../fields/PaperFields.js';

/** How the shop words its letters. */
export function ShopLetters({ mayWrite }: { mayWrite: boolean }): ReactNode {
  const { data } = useShopQuery();
  const [save, { isLoading }] = useSaveLettersMutation();
  const { message } = App.useApp();
  const [to, setTo] = useState<LetterTo>('client');
  if (!data) return null;
  const kept = data.letters[to];
  const shipped = LETTER_TEMPLATES[to];
  const own = kept.subject !== shipped.subject || kept.body !== shipped.body;
  const keep = (template: LetterTemplate): Promise<void> =>
    save({ basedOn: data.version, letters: { ...data.letters, [to]: template } })
      .unwrap()
      .then(
        () => undefined,
        (e: unknown) => void message.error((e as ApiError).sentence),
      );
  return (
    <section className="shop-letters">
      <h2>Letters of the shop</h2>
      <p className="quiet">
        Words in braces are filled from the case; what stands in square brackets is left out where a field in it is empty, and so is a
        paragraph of which nothing is known.
      </p>
      <div className="row">
        <Select
          aria-label="Letter"
          value={to}
          onChange={setTo}
          options={LETTERS.map((value) => ({ value, label: LETTER_NAMES[value] }))}
          style={{ width: 180 }}
        />
        {mayWrite && (
          <Button disabled={!own} loading={isLoading} onClick={() => void keep(shipped)}>
            As it ships
          </Button>
        )}
      </div>
      <PaperFields
        key={`${to}.${data.version}`}
        fields={[
          { key: 'subject', label: `${LETTER_NAMES[to]}: subject`, max: 200 },
          { key: 'body', label: `${LETTER_NAMES[to]}: letter`, max: 8000, rows: 16 },
        ]}
        kept={{ ...kept }}
        disabled={!mayWrite}
        busy={isLoading}
        onKeep={({ subject = '', body = '' }) => keep({ subject, body })}
      />
      <details>
        <summary>Fields</summary>
        <dl className="letter-fields">
          {Object.entries(LETTER_FIELDS).map(([field, says]) => (
            <div key={field}>
              <dt className="figure">{`{${field}}`}</dt>
              <dd>{says}</dd>
            </div>
          ))}
        </dl>
      </details>
    </section>
  );
}
