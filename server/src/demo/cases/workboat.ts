import type { Grade } from '@true-ledger/core/damage';
import { CaseScript, layout, type DemoCase } from '../caseScript.js';

export function workboat(): DemoCase {
  const c = new CaseScript('Workboat main engine: low pressure since the refit', layout('inline-4-diesel', { boreMm: 102, strokeMm: 115 }));
  c.intake({
    reference: 'Workboat “Saltmarsh Wren”',
    questionOwner: 'private',
    question: 'What wore the new bearings in 300 hours?',
    complaint: 'low-pressure,metal-in-oil',
    complaintWords: 'Pressure has crept down since the winter refit.',
    onset: 'gradual',
    afterFirstSign: 'driven-on',
    received: 'Engine on a pallet, pan on, injectors out.',
    firstImpression: 'pump-worn',
  });
  c.history('Block was bead-blasted and painted at the refit', 'told', 'told.recent-work', '2026-01-20').history(
    'Filter cut open by the crew: glittering',
    'told',
    null,
    '2026-09-14',
  );
  c.received('Block with crank and pistons in', 'received')
    .received('Injectors and injector pump', 'already-off', 'crew')
    .buildMark('paint', 'Fresh paint over old gaskets, beads of blast media under the cover', 'opened-before')
    .question('client', 'Who blasted the block, and were the galleries open when it was done?');
  c.check('dipstick', 'level', ['between'])
    .check('dipstick', 'look', ['dark', 'glitter'])
    .check('coolant', 'level', ['full'])
    .check('magnet', 'clings', ['fuzz']);
  c.check('turning', 'feel', ['free']);
  c.done('arrival', 'isolate', 'turn').passedOver('oil-sample', 'drained by the crew before it came').done('drain-oil');
  const scored = (station: string, n: number, grade: Grade): void => {
    for (let k = 0; k < n; k++) c.line(station, 0.12 + (0.76 * (k + 0.4)) / n, 0.08, 0.92, k % 3 === 0 ? 'through' : 'probe');
    for (let k = 0; k < n * 2; k++) {
      const u = 0.15 + ((k * 37) % 70) / 100;
      c.stroke(station, 'embedded', 0.8, [[u, 0.15 + ((k * 53) % 70) / 100]]);
    }
    c.finding(station, grade, ['scoring', 'embedded']);
  };
  scored('main.1.shell.lower', 7, 3);
  c.picture('main.1.shell.lower', 'main-1-lower-face.jpg');
  scored('main.2.shell.lower', 6, 3);
  scored('main.3.shell.lower', 4, 2);
  c.picture('main.3.shell.lower', 'main-3-lower-face.jpg');
  scored('rod.1.shell.upper', 5, 3);
  scored('rod.2.shell.upper', 4, 2);
  c.sound('main.1.shell.upper', 'main.2.shell.upper', 'main.3.shell.upper', 'rod.1.shell.lower', 'rod.2.shell.lower', 'bore.1', 'bore.2');
  c.line('crank.main.1', 0.3, 0, 1, 'nail')
    .line('crank.main.1', 0.5, 0, 1, 'probe')
    .line('crank.main.1', 0.72, 0, 1, 'probe')
    .picture('crank.main.1', 'main-journal-1.jpg')
    .finding('crank.main.1', 3, ['journal-scoring']);
  c.finding('pump.gears', 2, ['pump-scored']).finding('pan.debris', 2, ['grit'], 'Glassy beads between the flakes, they scratch a slide.');
  return { number: '2026-D02', steps: c.steps };
}
