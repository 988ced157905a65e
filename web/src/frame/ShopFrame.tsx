import type { Me } from '@true-ledger/contract';
import { Suspense, type ReactNode } from 'react';
import { PageBoundary } from '../app/PageBoundary.js';
import { Waiting } from '../app/Waiting.js';
import { NavLink, Outlet } from 'react-router';
import { DiskRoom } from './DiskRoom.js';
import { SkipLink } from './SkipLink.js';
import { PersonMenu } from './PersonMenu.js';

/** Frame outside a case. */
export function ShopFrame({ me }: { me: Me }): ReactNode {
  return (
    <div className="shop">
      <SkipLink />
      <header className="strip">
        <span className="brand">True Ledger</span>
        <nav aria-label="Shop" className="stage-line">
          <NavLink to="/" end>
            Shelf
          </NavLink>
          <NavLink to="/patterns">Patterns</NavLink>
          <NavLink to="/studio">Specimens</NavLink>
          <NavLink to="/grade-book">Grade book</NavLink>
          <NavLink to="/policy">Policy</NavLink>
          <NavLink to="/sheets">Spec sheets</NavLink>
          <NavLink to="/prices">Prices</NavLink>
          <NavLink to="/gauges">Gauges</NavLink>
          <NavLink to="/finish">Surface finish</NavLink>
          <NavLink to="/set-up">Set-up</NavLink>
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
