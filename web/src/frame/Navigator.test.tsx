import { screen } from '@testing-library/react';
import { Route, Routes, useLocation } from 'react-router';
import type { ReactNode } from 'react';
import { CASE, open } from '../testing/bench.js';
import { Navigator } from './Navigator.js';

function Here(): ReactNode {
  return <output>{useLocation().pathname}</output>;
}
const page = (
  <>
    <Navigator open onOpen={() => undefined} onClose={() => undefined} />
    <Here />
    <Routes>
      <Route path="*" element={null} />
    </Routes>
  </>
);
const places = (): string[] => [...document.querySelectorAll<HTMLElement>('[data-place]')].map((p) => p.dataset['place']!);

describe('finding a place', () => {
  it.each([
    ['rod 2', ['rod.2', 'rod.2.shell.upper', 'rod.2.shell.lower']],
    ['big end 3', ['rod.3.shell.upper', 'rod.3.shell.lower']],
    ['conrod 1 lower', ['rod.1.shell.lower']],
    ['sump', ['pan.debris']],
    ['liner 4', ['bore.4']],
  ])('"%s" finds it by the name it has or the one the trade has', async (words, expected) => {
    const { user } = await open(page);
    await user.type(await screen.findByRole('textbox', { name: 'Find a place' }), words);
    expect(places()).toEqual(expect.arrayContaining(expected));
    expect(places().length).toBeLessThan(8);
  });

  it('Enter goes to the first, and single keys work there', async () => {
    const { user } = await open(page);
    await user.type(await screen.findByRole('textbox', { name: 'Find a place' }), 'pin 3{Enter}');
    expect(screen.getByRole('status').textContent).toBe(`/case/${CASE}/station/crank.pin.3`);
    expect(document.activeElement).toBe(document.body);
  });

  it('says so where nothing is called that', async () => {
    const { user } = await open(page);
    await user.type(await screen.findByRole('textbox', { name: 'Find a place' }), 'gearbox');
    expect(screen.getByText('No place of this engine is called that.')).toBeTruthy();
  });

  it('is one stop of the keyboard, and arrows go through it', async () => {
    const { user } = await open(page);
    await screen.findByRole('textbox', { name: 'Find a place' });
    const links = [...document.querySelectorAll<HTMLElement>('[data-place]')];
    expect(links.filter((l) => l.tabIndex === 0)).toHaveLength(1);
    links[0]!.focus();
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowUp}');
    expect(document.activeElement).toBe(links[1]);
    await user.keyboard('{End}');
    expect(document.activeElement).toBe(links.at(-1));
  });
});
