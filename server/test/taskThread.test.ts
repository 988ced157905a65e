import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TaskThread } from '../src/threads/taskThread.js';

// The clock of a task: it runs while the task is worked on, not while its helper comes up on a machine that is busy.
const folder = mkdtempSync(join(tmpdir(), 'tl-helper-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const STOPPED = { code: 'busy', sentence: 'Ended.' } as const;
/** A helper that comes up after a while and then answers at once, or never. */
function helper(name: string, upAfterMs: number, answers: boolean): string {
  const file = join(folder, `${name}.cjs`);
  writeFileSync(
    file,
    `setTimeout(() => { process.on('message', (task) => ${answers ? 'process.send({ ok: true, value: task })' : 'undefined'}); process.send('up'); }, ${upAfterMs});`,
  );
  return file;
}

describe('a task', () => {
  it('does not answer for a helper that is slow to come up', async () => {
    const thread = new TaskThread<string, string>(helper('slow', 1200, true), STOPPED, { timeMs: 300, memoryMb: 200 }, 'process');
    expect(await thread.run('one')).toEqual({ ok: true, value: 'one' });
    expect(await thread.run('two')).toEqual({ ok: true, value: 'two' });
    await thread.end();
  });

  it('is ended when it takes longer than it may, and the next has a helper of its own', async () => {
    const thread = new TaskThread<string, string>(helper('never', 0, false), STOPPED, { timeMs: 300, memoryMb: 200 }, 'process');
    expect(await Promise.all([thread.run('one'), thread.run('two')])).toEqual([
      { ok: false, problem: STOPPED },
      { ok: false, problem: STOPPED },
    ]);
    await thread.end();
  });
});
