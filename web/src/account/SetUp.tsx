import { Switch } from 'antd';
import type { Me } from '@true-ledger/contract';
import { useState, type ReactNode } from 'react';
import { Seals } from './Seals.js';
import { ShopLetters } from './ShopLetters.js';
import { ShopPaper } from './ShopPaper.js';
import { setSingleKeys, singleKeysOn } from '../app/keys.js';
import './account.css';
import { People } from './People.js';
import { Gauges } from './ShopGauge.js';
import { OwnPassword } from './OwnPassword.js';
import { Sessions } from './Sessions.js';

/** People, sessions, gauges and keys. */
export function SetUp({ me }: { me: Me }): ReactNode {
  const [keys, setKeys] = useState(singleKeysOn());
  return (
    <div className="page">
      <h1>Set-up</h1>
      {me.account.role === 'owner' && <People me={me} />}
      <ShopPaper mayWrite={me.account.role === 'owner'} />
      {me.account.role !== 'reader' && <ShopLetters mayWrite={me.account.role === 'owner'} />}
      <Gauges mayWrite={me.account.role !== 'reader'} />
      <OwnPassword />
      <Sessions />
      {me.account.role !== 'reader' && <Seals />}
      <section>
        <h2>Keys</h2>
        <label className="row">
          <Switch
            checked={keys}
            onChange={(on) => {
              setSingleKeys(on);
              setKeys(on);
            }}
          />
          <span>Single-letter keys on the bench (press ? anywhere for the list)</span>
        </label>
      </section>
    </div>
  );
}
