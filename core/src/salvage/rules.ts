import { positionOf } from '../damage/schools.js';
import { isExamined, showsFact, standingGrade, type CaseView, type StationView } from '../case/views.js';
import { sizeForAll } from '../measured/consequences.js';
import type { Disposition, Operation } from '../workshop/operations.js';

type Say = (operation: Operation, reason: string, more?: { size?: string; school?: string }) => Disposition;

const shows = (s: StationView, ...ids: readonly string[]): boolean =>
  s.patterns.some((p) => p.value.present && ids.includes(p.value.pattern));

/** Did a shell of a main creep or turn in its housing? */
export const movedInMain = (s: StationView): boolean =>
  s.station.carries === 'crank' && s.station.part !== 'journal' && showsFact(s, 'moved in its housing');

const SPUN_MAIN = {
  condemn: 'it moved in its housing: the shop condemns a block whose main has turned',
  measure: 'it moved in its housing: housing gauged with the cap torqued before a shell is ordered, line-bored where it is out',
  sleeve: 'it moved in its housing: housing welded or sleeved, then line-bored',
} as const;

/** What the evidence at one place alone asks for, before what other places force upon it. A place nobody looked at stays "check". */
export function ownDisposition(view: CaseView, s: StationView): Disposition {
  const say: Say = (operation, reason, more = {}) => ({
    station: s.station.id,
    name: s.station.name,
    operation,
    size: more.size ?? '',
    reason,
    school: more.school ?? null,
    because: [],
  });
  if (s.state === 'not-present') return say('check', 'not present in what came to us');
  if (s.state === 'lost' || s.state === 'before-us') return say('replace', 'lost or altered before it could be judged');
  const grade = standingGrade(s);
  if (!isExamined(s) || grade === null) return say('check', 'not examined: nothing is known of it');
  const chosen = new Map([...view.schools].map(([id, x]) => [id, x.value.position]));
  switch (s.station.part) {
    case 'shell':
      if (movedInMain(s))
        return say('replace', SPUN_MAIN[positionOf('spun-main', chosen) as keyof typeof SPUN_MAIN], { school: 'spun-main' });
      return grade >= 2 ? say('replace', `grade ${grade}`) : say('clean', `grade ${grade}, within what serves`);
    case 'rolling':
    case 'thrust':
      return grade >= 2 ? say('replace', `grade ${grade}`) : say('clean', `grade ${grade}, within what serves`);
    case 'journal':
      return journal(view, s, grade, chosen, say);
    case 'bore':
      return bore(view, s, grade, chosen, say);
    case 'skirt':
    case 'crown':
      if (shows(s, 'piston-broken', 'pin-boss-worn', 'crown-melt')) return say('replace', 'cracked, worn or melted');
      return grade >= 3 ? say('replace', `grade ${grade}`) : say('clean', `grade ${grade}: carbon off, measure skirt and pin`);
    case 'rings':
      return grade >= 2 ? say('replace', `grade ${grade}`) : say('clean', `grade ${grade}: gaps and tension in order`);
    case 'rod':
      if (shows(s, 'rod-bent', 'rod-broken', 'rod-blued', 'underside-dark')) return say('replace', 'bent, broken or coloured by heat');
      return grade >= 2 ? say('test', `grade ${grade}: alignment, crack test, housing size`) : say('reuse', `grade ${grade}`);
    case 'chamber':
      if (shows(s, 'head-crack')) return say('weld', 'cracked; by a specialist, pressure-tested after');
      return grade >= 2 ? say('test', `grade ${grade}: pressure test`) : say('clean', `grade ${grade}`);
    case 'valve':
      return grade >= 3
        ? say('replace', `grade ${grade}`)
        : grade === 2
          ? say('resize', 'seats and guides by measure')
          : say('clean', `grade ${grade}`);
    case 'cam':
      return grade >= 2 ? say('replace', `grade ${grade}: lobe and follower as a pair`) : say('reuse', `grade ${grade}`);
    case 'gasket':
      return shows(s, 'deck-low', 'gasket-leak')
        ? say('face', 'the joint leaked: head and deck by straight edge, faced where not flat')
        : say('replace', 'a gasket is used once');
    case 'pump':
      return grade >= 2 ? say('replace', `grade ${grade}`) : say('clean', `grade ${grade}`);
    case 'pickup':
      return shows(s, 'pickup-leak') ? say('replace', 'it drew air') : say('clean', 'screen and pipe');
    case 'filter':
      return say('replace', 'a filter is used once');
    case 'debris':
      return say('keep', 'evidence: bagged and named');
    case 'timing':
      return grade >= 2 ? say('replace', `grade ${grade}: drive, tensioner and guides together`) : say('reuse', `grade ${grade}`);
    case 'housing':
      return grade >= 2
        ? say('test', `grade ${grade}: round, size and line by gauge, cap by its number and joint`)
        : say('reuse', `grade ${grade}`);
    case 'block':
      return grade >= 2 ? say('test', `grade ${grade}: cracks, and the line of the mains`) : say('clean', `grade ${grade}`);
    case 'cambearing':
    case 'balancer':
    case 'turbo':
      return grade >= 2 ? say('replace', `grade ${grade}`) : say('reuse', `grade ${grade}`);
    case 'seal':
      return say('replace', 'a seal is used once');
    case 'pan':
    case 'coolant':
      return grade >= 3 ? say('replace', `grade ${grade}`) : say('clean', `grade ${grade}`);
    case 'clutch':
      return say('check', grade >= 2 ? `grade ${grade}: what pushes on the crank, before it runs again` : `grade ${grade}`);
    case 'gallery':
    case 'cooler':
      return grade >= 2 ? say('clean', `grade ${grade}: plugs out, brushed and blown`) : say('reuse', `grade ${grade}`);
    case 'fastener': {
      const school = positionOf('stretched-bolts', chosen);
      if (grade >= 2 || school === 'never')
        return say('replace', grade >= 2 ? `grade ${grade}` : 'the shop uses none twice', { school: 'stretched-bolts' });
      return say('check', school === 'measure' ? 'measure the length of each' : 'replace torque-to-yield types, measure the others', {
        school: 'stretched-bolts',
      });
    }
  }
}

function journal(view: CaseView, s: StationView, grade: number, chosen: ReadonlyMap<string, string>, say: Say): Disposition {
  if (shows(s, 'fillet-crack')) return say('replace', 'cracked; the crank is lost');
  const size = sizeForAll(view, s.station.carries === 'rod' ? 'crank.pin' : 'crank.main');
  const nail = (s.summary?.lines.nail ?? 0) + (s.summary?.lines.through ?? 0) > 0;
  const school = positionOf('scored-journal', chosen);
  const crank = positionOf('worn-crank', chosen);
  const must = grade >= 3 || (nail && school !== 'measure') || (grade === 2 && school === 'nail-grinds' && nail);
  if (!must)
    return grade === 2
      ? say('polish', 'inside size: polish and gauge the finish', { school: 'scored-journal' })
      : say('clean', `grade ${grade}`);
  if (crank === 'new') return say('replace', 'the shop fits a new crank to a worn one', { school: 'worn-crank' });
  if (size?.stepMm)
    return say('grind', `${nail ? 'a line that catches the nail' : `grade ${grade}`}; ${size.words}`, {
      size: `−${size.stepMm.toFixed(2)} mm`,
      school: 'scored-journal',
    });
  if (size) return say('replace', size.words);
  return say('grind', `grade ${grade}; the size follows once every journal of its kind is measured`, { school: 'scored-journal' });
}

function bore(view: CaseView, s: StationView, grade: number, chosen: ReadonlyMap<string, string>, say: Say): Disposition {
  if (shows(s, 'bore-crack')) return say('sleeve', 'cracked');
  const size = sizeForAll(view, 'bore');
  const school = positionOf('marginal-bore', chosen);
  if (grade >= 3 || (grade === 2 && school === 'rebore'))
    return say('rebore', size ? `grade ${grade}; ${size.words}` : `grade ${grade}; the size follows once the bores are measured`, {
      size: size?.stepMm ? `+${size.stepMm.toFixed(2)} mm` : '',
      school: 'marginal-bore',
    });
  if (grade === 2) return say('hone', 'inside its limit', { school: 'marginal-bore' });
  const seen = positionOf('hatch-seen', chosen);
  return say(
    'reuse',
    seen === 'good' ? `grade ${grade}, hatch seen` : `grade ${grade}; size and finish to be gauged, a hatch seen is no proof`,
    { school: 'hatch-seen' },
  );
}
