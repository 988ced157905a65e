import { figure, list, object, sha256 } from '../../kit/schema.js';
import { byPicture, defineEntry } from '../define.js';

export const blurSet = defineEntry({
  kind: 'blur-set',
  name: 'Blurred',
  says: 'Regions made unrecognisable in what is shared of a picture.',
  body: object({ sha256, regions: list(object({ x: figure(0, 1), y: figure(0, 1), r: figure(0.002, 0.5) }), 500) }),
  stands: 'either',
  slot: (b) => `blur:${b.sha256}`,
  tell: (b) => `${b.regions.length} regions of ${b.sha256.slice(0, 8)}`,
  ofCase: (all) => ({ blurs: byPicture(all) }),
  ofStation: (all) => ({ blurs: byPicture(all) }),
});
