import { App, Button } from 'antd';
import { cause } from '@true-ledger/core/cause';
import type { ReactNode } from 'react';
import { useLazyShopPriorsQuery } from '../../app/api.js';
import { useCase, useRecord } from '../../app/caseContext.js';
import { asProblem } from '../../app/server.js';

/** Where the judgement begins: at the table alone, or moved by what the shop itself proved. It is a prior and no evidence. */
export function PriorsLine(): ReactNode {
  const { view, caseId, readOnly } = useCase();
  const record = useRecord();
  const { message } = App.useApp();
  const [ask, { isFetching }] = useLazyShopPriorsQuery();
  const priors = view.priors?.value.priors ?? null;
  const take = async (): Promise<void> => {
    const { data, error } = await ask({ family: view.layout.template, without: caseId });
    if (!data) return void message.error(asProblem(error).sentence, 8);
    if (!data.priors) return void message.info('No case of the shop has a proven cause yet: there is nothing to move the table by.', 8);
    record({ kind: 'priors-taken', station: null, body: { priors: data.priors } });
  };
  const most = Object.entries(priors?.factors ?? {})
    .sort((a, b) => Math.abs(Math.log(b[1])) - Math.abs(Math.log(a[1])))
    .slice(0, 3)
    .map(([id, f]) => `${cause(id)?.name.toLowerCase() ?? id} × ${f.toFixed(1)}`);
  return (
    <p className="quiet priors-line">
      {priors
        ? `Begins with the shop’s own frequencies: ${priors.cases} proven case${priors.cases === 1 ? '' : 's'} up to ${priors.on}, ${priors.ofFamily} of this kind of engine (${most.join(', ')}). A prior, no evidence. `
        : 'Begins with the table alone. '}
      {!readOnly && (
        <Button size="small" loading={isFetching} onClick={() => void take()}>
          {priors ? 'Take them as they stand now' : 'Begin with the shop’s own frequencies'}
        </Button>
      )}{' '}
      {!readOnly && priors && (
        <Button size="small" onClick={() => record({ kind: 'priors-taken', station: null, body: { priors: null } })}>
          The table alone
        </Button>
      )}
    </p>
  );
}
