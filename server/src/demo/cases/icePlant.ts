import { CaseScript, layout, type DemoCase } from '../caseScript.js';

export function icePlant(): DemoCase {
  const c = new CaseScript('Ice plant generator set: opened at 12 000 h', layout('inline-6-diesel'));
  c.intake({
    reference: 'Ice plant, set A',
    questionOwner: 'inspection',
    question: 'Can it run to 16 000 h?',
    complaint: 'none',
    complaintWords: 'No complaint. Planned inspection.',
    received: 'Engine in place, pan lowered, two caps off at a time.',
    firstImpression: 'normal-wear',
  });
  c.history('Oil and filter every 250 h, log complete', 'seen', 'told.long-service', '2026-11-02');
  c.looked('fluid.level-low', false, 'Level right')
    .looked('fluid.milky', false, 'Not milky')
    .looked('fluid.black-sludge', false, 'Clean under the cover');
  for (const m of [1, 2, 4])
    c.stroke(`main.${m}.shell.lower`, 'polished', 7, [
      [0.3, 0.5],
      [0.7, 0.5],
    ])
      .finding(`main.${m}.shell.lower`, 1, ['normal-bedding'])
      .sound(`main.${m}.shell.upper`, `crank.main.${m}`);
  for (const r of [1, 2, 3])
    c.stroke(`rod.${r}.shell.upper`, 'polished', 7, [
      [0.3, 0.5],
      [0.7, 0.5],
    ])
      .finding(`rod.${r}.shell.upper`, 1, ['normal-bedding'])
      .sound(`rod.${r}.shell.lower`, `crank.pin.${r}`, `rod.${r}`);
  c.picture('rod.1.shell.upper', 'rod-1-upper-face.jpg').sound('pan.debris', 'filter.media', 'pickup.screen');
  for (const n of [1, 2, 3])
    c.gauge(`crank.pin.${n}`, 'journal', 'ice-plant', () => 0.05).gauge(`rod.${n}.shell.lower`, 'shell-clearance', 'ice-plant', () => 0.05);
  // Half of the caps stay on; everything a borescope and an open pan reach was looked at.
  const closed = [3, 5, 6, 7].flatMap((n) => [`main.${n}.shell.upper`, `main.${n}.shell.lower`, `crank.main.${n}`]);
  for (const n of [4, 5, 6]) closed.push(`rod.${n}.shell.upper`, `rod.${n}.shell.lower`, `crank.pin.${n}`);
  c.soundRest(...closed, 'oil.gallery', 'oil.cooler', 'bolts.main');
  c.concludes('Nothing was found that speaks against running on. What was opened is bedded and sound; the places not opened are listed.');
  c.sign('');
  return { number: '2026-D03', steps: c.steps };
}
