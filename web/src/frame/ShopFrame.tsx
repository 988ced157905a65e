import type { Me } from '@true-ledger/contract';
import { Suspense, type ReactNode } from 'react';
import { PageBoundary } from '../app/PageBoundary.js';
import { Waiting } from '../app/Waiting.js';
import { NavLink, Outlet, useLocation } from 'react-router';
import { DiskRoom } from './DiskRoom.js';
import { SkipLink } from './SkipLink.js';
import { PersonMenu } from './PersonMenu.js';
import './frame.css';

const PAGES: ReadonlyArray<readonly [path: string, name: string]> = [
  ['/', 'Shelf'],
  ['/across', 'Across cases'],
  ['/oil', 'Oil'],
  ['/patterns', 'Patterns'],
  ['/studio', 'Specimens'],
  ['/practice', 'Practice'],
  ['/grade-book', 'Grade book'],
  ['/policy', 'Policy'],
  ['/sheets', 'Spec sheets'],
  ['/prices', 'Prices'],
  ['/gauges', 'Gauges'],
  ['/finish', 'Surface finish'],
  ['/set-up', 'Set-up'],
];

/** Frame outside a case. */
export function ShopFrame({ me }: { me: Me }): ReactNode {
  const { pathname } = useLocation();
  const here = pathname === '/new' ? 'New case' : PAGES.findLast(([path]) => pathname.startsWith(path))?.[1];
  return (
    <div className="shop">
      <title>{`${here} · True Ledger`}</title>
      <SkipLink />
      <header className="strip">
        <span className="brand">True Ledger</span>
        <nav aria-label="Shop" className="stage-line">
          {PAGES.map(([path, name]) => (
            <NavLink key={path} to={path} end={path === '/'}>
              {name}
            </NavLink>
          ))}
        </nav>
        <DiskRoom />
        <PersonMenu me={me} />
      </header>
      <main className="shop-main" id="work" tabIndex={-1}>
        <PageBoundary>
          <Suspense fallback={<Waiting what="Fetching the page" />}>
            <Outlet />
          </Suspense>
        </PageBoundary>
      </main>
    </div>
  );
}
