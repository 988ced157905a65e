// An account with 60 pictures, marks and surfaces as PDF, over HTTP from the server as it runs: nothing drawn before, and again with the pictures drawn. Run by `npm run bench`.
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { sha256Hex } from '@true-ledger/core/kit';
import { engineTemplate, stationsOf } from '@true-ledger/core/engine';
import { USUAL_SHOT, surfaceMaps, takeShell } from '@true-ledger/core/specimen';
import { benchShop } from './shop.mjs';

const PICTURES = 60;
/** Different specimens rendered; the others are these with another comment in the file. */
const RENDERED = 6;
const shop = await benchShop();
try {
  const id = randomUUID();
  const { layout } = engineTemplate('inline-6-diesel');
  await shop.post('/api/cases', { id, title: 'Sixty pictures', reference: '', layout });
  const shells = stationsOf(layout).filter((s) => s.part === 'shell');
  const made = [];
  for (let seed = 1; seed <= RENDERED; seed++) {
    const { surface } = shells[0];
    const specimen = { seed, radiusMm: surface.widthMm / Math.PI, widthMm: surface.heightMm, damages: [] };
    const shot = { ...USUAL_SHOT, seed, width: 1200, height: 900 };
    const { pixels, corners } = takeShell(specimen, surfaceMaps(specimen), shot);
    const jpeg = await sharp(Buffer.from(pixels.data.buffer), { raw: { width: 1200, height: 900, channels: 4 } })
      .jpeg({ quality: 86 })
      .toBuffer();
    made.push({ jpeg, corners });
  }
  const draft = (kind, station, body) => ({ id: randomUUID(), kind, station, body, basedOn: null });
  for (let k = 0; k < PICTURES; k++) {
    const station = shells[k % shells.length].id;
    const { jpeg, corners } = made[k % RENDERED];
    const words = Buffer.from(`picture ${k}`);
    const file = Buffer.concat([jpeg.subarray(0, 2), Buffer.from([0xff, 0xfe, 0, words.length + 2]), words, jpeg.subarray(2)]);
    const form = new FormData();
    form.set('entryId', randomUUID());
    form.set('station', station);
    form.set('standIn', 'yes');
    form.set('file', new Blob([file], { type: 'image/jpeg' }), `p${k}.jpg`);
    await shop.post(`/api/cases/${id}/photos`, form);
    await shop.post(`/api/cases/${id}/entries`, { entries: [draft('corners-set', station, { sha256: sha256Hex(file), corners })] });
  }
  await shop.post(`/api/cases/${id}/entries`, {
    entries: shells.flatMap((s, k) => [
      draft('mark-made', s.id, {
        mark: {
          id: 'm',
          shape: 'stroke',
          class: 'lining',
          points: [
            [0.3, 0.5],
            [0.7, 0.45],
          ],
          radiusMm: 4 + (k % 3),
          made: 'found-so',
        },
      }),
      draft('grade-confirmed', s.id, { grade: 2 + (k % 2), proposed: null, reason: '', book: '1' }),
    ]),
  });
  const take = async () => {
    const from = performance.now();
    const answer = await fetch(`${shop.base}/api/cases/${id}/report.pdf`, { headers: { Cookie: shop.cookie } });
    if (!answer.ok) throw new Error(await answer.text());
    const bytes = (await answer.arrayBuffer()).byteLength;
    return { seconds: (performance.now() - from) / 1000, bytes };
  };
  const first = await take();
  const again = [await take(), await take(), await take()].sort((a, b) => a.seconds - b.seconds)[1];
  const print = (figure, value, more) => console.log(JSON.stringify({ figure, value: Number(value.toFixed(1)), ...more }));
  print(`account with ${PICTURES} pictures as PDF, pictures drawn before (as after its page was looked at)`, again.seconds, {
    unit: 's',
    limit: 8,
  });
  print(`account with ${PICTURES} pictures as PDF, every picture drawn for it`, first.seconds, { unit: 's', limit: 8 });
  print(`account with ${PICTURES} pictures as PDF, size`, first.bytes / 1e6, { unit: 'MB', limit: 15 });
} finally {
  await shop.stop();
}
