import type { Present } from '@true-ledger/contract';
import { stationsOf } from '@true-ledger/core/engine';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { usePresenceMutation } from '../app/api.js';
import type { OpenCase } from '../app/caseContext.js';
import './frame.css';

const EVERY_MS = 10_000;
const PAGE = crypto.randomUUID();

const STAGES: Readonly<Record<string, string>> = {
  intake: 'Intake',
  opening: 'Before opening',
  strip: 'Strip',
  bench: 'Bench',
  measure: 'Measure',
  loads: 'Loads',
  cause: 'Cause',
  decide: 'Decide',
  document: 'Document',
  pictures: 'Pictures',
  ledger: 'Ledger',
};

/** Who else has this case open, and where in it. */
export function Presence({ open }: { open: OpenCase }): ReactNode {
  const { pathname } = useLocation();
  const [say] = usePresenceMutation();
  const [others, setOthers] = useState<readonly Present[]>([]);
  const { caseId, view } = open;
  const names = useMemo(() => new Map(stationsOf(view.layout).map((s) => [s.id, s.name])), [view.layout]);
  const [, , , stage = '', place = ''] = pathname.split('/');
  const where = names.get(place) ?? STAGES[stage] ?? stage;
  useEffect(() => {
    let gone = false;
    const tell = (): void => {
      if (document.visibilityState === 'hidden') return;
      say({ caseId, page: PAGE, place: where })
        .unwrap()
        .then((list) => {
          if (!gone) setOthers(list);
        })
        .catch(() => {
          // A line that is down shows nobody rather than who was there before.
          if (!gone) setOthers([]);
        });
    };
    tell();
    const timer = setInterval(tell, EVERY_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [say, caseId, where]);
  if (others.length === 0) return null;
  const words = others.map((o) => `${o.name}${o.place ? `, ${o.place}` : ''}`).join('; ');
  return (
    <span className="present" role="status" title={`Also here: ${words}`} aria-label={`Also here: ${words}`}>
      {others.map((o) => (
        <span key={o.name} aria-hidden="true">
          {o.name
            .split(/\s+/)
            .map((w) => w[0])
            .join('')
            .slice(0, 2)}
        </span>
      ))}
    </span>
  );
}
