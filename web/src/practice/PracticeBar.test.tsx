import { screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { CASE, json, open, settled, Shop } from '../testing/bench.js';
import { TruthPage } from '../stages/truth/TruthPage.js';
import { PracticeBar } from './PracticeBar.js';

const practice = (): Shop => {
  const shop = new Shop();
  shop.write('practice-set', null, { level: 4, version: 1, sealed: true });
  return shop;
};
/** What the server does when somebody looks. */
const lets = (shop: Shop, words: string[]): string[] => {
  const asked: string[] = [];
  shop.more.set(`POST /api/practice/cases/${CASE}/looks`, async (request) => {
    const { look } = (await request.json()) as { look: string };
    asked.push(look);
    shop.write('practice-looked', null, { look, name: 'Dipstick', minutes: 2, words, picture: false });
    return json(201, { look, minutes: 2, words, picture: false });
  });
  return asked;
};
const bar = (
  <Routes>
    <Route path="*" element={<PracticeBar />} />
  </Routes>
);

describe('over a practice engine', () => {
  it('a check is looked at once by its key, for its minutes', async () => {
    const shop = practice();
    const asked = lets(shop, ['Level: full']);
    const { user } = await open(bar, { shop, at: `/case/${CASE}/opening/dipstick` });
    await screen.findByText('Make the check (2 min)');
    await user.keyboard('v');
    await waitFor(() => expect(asked).toEqual(['check:dipstick']));
  });

  it('what was seen stays beside its place, and says what was spent', async () => {
    const shop = practice();
    shop.write('practice-looked', null, {
      look: 'check:dipstick',
      name: 'Dipstick',
      minutes: 2,
      words: ['Level: not on the stick'],
      picture: false,
    });
    shop.write('step-set', null, { step: 'isolate', state: 'done', note: '' });
    await open(bar, { shop, at: `/case/${CASE}/opening/dipstick` });
    await screen.findByText('Level: not on the stick');
    expect(screen.getByText('12 min')).toBeTruthy();
    expect(screen.queryByText(/Make the check/)).toBeNull();
  });

  it('says when a part is laid bare, when a check is gone, and why a look was refused', async () => {
    const shop = practice();
    const first = await open(bar, { shop, at: `/case/${CASE}/station/rod.1.shell.upper` });
    await screen.findByText(/is not laid bare yet/);
    expect(screen.getByText(/Look at it/).closest('button')!.disabled).toBe(true);
    first.unmount();
    shop.more.set(`POST /api/practice/cases/${CASE}/looks`, () =>
      json(409, { code: 'practice-not-yet', sentence: 'Dipstick: passed over. Nothing was paid.' }),
    );
    const { user } = await open(bar, { shop, at: `/case/${CASE}/opening/dipstick` });
    await user.click(await screen.findByText('Make the check (2 min)'));
    await screen.findByText(/Nothing was paid/);
  });

  it('the owner is asked one thing at a time; a reader asks nothing', async () => {
    const shop = practice();
    const asked = lets(shop, ['The owner: “No.”']);
    const first = await open(bar, { shop, at: `/case/${CASE}/intake` });
    await first.user.click(await screen.findByLabelText('What to find out'));
    await first.user.click(await screen.findByTitle(/Ask for temperature and steam/));
    await first.user.click(await screen.findByText('Ask the owner (2 min)'));
    await waitFor(() => expect(asked).toEqual(['ask:told.overheated']));
    first.unmount();
    await open(bar, { shop: practice(), role: 'reader', at: `/case/${CASE}/opening/dipstick` });
    await screen.findByText(/Practice engine, level 4/);
    expect(screen.queryByText(/Make the check/)).toBeNull();
  });
});

describe('the truth', () => {
  it('is opened with what is answered, and how sure of each is asked for', async () => {
    const shop = practice();
    shop.write('cause-decided', null, { cause: 'surge', decision: 'confirmed', reason: '' });
    const sent: unknown[] = [];
    shop.more.set(`POST /api/practice/cases/${CASE}/open`, async (request) => {
      sent.push(await request.json());
      return json(409, { code: 'practice-opened', sentence: 'The truth of this engine is open.' });
    });
    const { user } = await open(<TruthPage />, { shop, at: `/case/${CASE}/truth` });
    await screen.findByText('Say how sure you are of each.');
    await user.type(screen.getByLabelText('How sure of cause 1, percent'), '75');
    await user.click(screen.getByText('Open the truth'));
    await screen.findAllByText('Open the truth?');
    await user.click(screen.getAllByText('Open the truth').at(-1)!);
    await waitFor(() => expect(sent).toEqual([{ answer: [{ cause: 'surge', percent: 75 }] }]));
    await screen.findByText('The truth of this engine is open.');
  });

  it('stands beside the answer: what it was, what told of it, what it cost, part by part', async () => {
    const shop = practice();
    shop.write('practice-scored', null, {
      level: 4,
      seed: 99,
      version: 1,
      answer: [{ cause: 'surge', percent: 90 }],
      score: {
        causes: [{ cause: 'oil-low', place: null, held: 0, carried: 0.4 }],
        right: false,
        own: { log: 3.4, brier: 0.9 },
        evidence: { log: 0.9, brier: 0.36 },
        minutes: 95,
        parts: [{ station: 'rod.1.shell.upper', there: ['wiping'], grade: 3, named: [], graded: null }],
        missed: [{ feature: 'fluid.level-low', look: 'Dipstick', how: 'passed over' }],
        best: { look: 'check:dipstick', name: 'Dipstick', minutes: 2, bits: 3.2 },
        untrue: ['told.ran-on'],
        cost: { currency: 'EUR', bench: 123.5, again: 3400, goneBack: [], goodAway: ['rod.1.shell.upper'] },
      },
    });
    await open(<TruthPage />, { shop, at: `/case/${CASE}/truth` });
    await screen.findByText('Not right.');
    const text = document.body.textContent;
    for (const said of [
      'seed 99',
      'Oil level run low or none',
      'Your evidence carried more than you held of it',
      'It comes back: 3,400 EUR',
      'Thrown away although good: Rod 1 upper shell',
      'Oil level low or none: passed over – Dipstick',
      'The owner was wrong about: run on after the first warning',
      '0 of 1 places named rightly',
      'not examined',
    ])
      expect(text).toContain(said);
    await settled();
  });

  it('is not there in an ordinary case', async () => {
    await open(
      <Routes>
        <Route path="/case/:id/truth" element={<TruthPage />} />
        <Route path="*" element={<p>the bench</p>} />
      </Routes>,
      { at: `/case/${CASE}/truth` },
    );
    await screen.findByText('the bench');
  });
});
