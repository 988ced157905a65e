import { Button, Dropdown } from 'antd';
import type { Me } from '@true-ledger/contract';
import type { ReactNode } from 'react';
import { forgetKnown } from '../app/knownCache.js';
import { useSignOutMutation } from '../app/api.js';
import './frame.css';

export function PersonMenu({ me, short = false }: { me: Me; short?: boolean }): ReactNode {
  const initials = me.account.name
    .split(/\s+/)
    .map((w) => w[0] ?? '')
    .join('')
    .slice(0, 3)
    .toUpperCase();
  const [signOut] = useSignOutMutation();
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'who', label: `${me.account.name}, ${me.account.role}`, disabled: true },
          { key: 'out', label: 'Sign out' },
        ],
        onClick: ({ key }) => {
          if (key === 'out')
            void signOut()
              .then(forgetKnown)
              .then(() => window.location.assign('/'));
        },
      }}
    >
      <Button
        type="text"
        className="person"
        aria-label={short ? `${initials}, ${me.account.name} is signed in` : `${me.account.name} is signed in`}
      >
        {short ? initials : me.account.name}
      </Button>
    </Dropdown>
  );
}
