import { CallHandler, type ExecutionContext } from '@nestjs/common';
import { answers, ERRORS } from '@true-ledger/contract';
import { PROBLEMS } from '@true-ledger/core/kit';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { lastValueFrom, of } from 'rxjs';
import { Answers, HeldAnswers } from '../src/http/answers.js';
import { ROOT, startBench, type Bench } from './harness.js';

let bench: Bench;
beforeAll(async () => void (bench = await startBench()));
afterAll(() => bench.close());

/** Operations that answer bytes or text, not JSON. */
const FILES =
  /\.(pdf|html|zip|json|tsr|ics|csv)$|\/surfaces\/\{station\}\/\{size\}$|\/(work|thumb|shared|original|picture|trace|account)$|\/clips\/\{sha\}$|\/events$|\/seals\/\{day\}$/;

interface Operation {
  readonly responses?: Record<string, { content?: unknown }>;
}

describe('the description of the API', () => {
  it('gives every operation a schema of its answer, or it sends a file', async () => {
    const { body } = await bench.people.owner.get('/api/docs/openapi.json').expect(200);
    const { paths } = body as { paths: Record<string, Record<string, Operation>> };
    const bare = Object.entries(paths).flatMap(([path, methods]) =>
      Object.entries(methods).flatMap(([method, operation]) => {
        if (FILES.test(path) && method === 'get') return [];
        // A letter is made of what is sent, and answered as its PDF.
        if (path === '/api/cases/{caseId}/letter.pdf' && method === 'post') return [];
        // What is put away answers nothing.
        if (method === 'delete' && path === '/api/stand-ins/{id}') return [];
        return operation.responses?.['2XX']?.content ? [] : [`${method} ${path}`];
      }),
    );
    expect(bare).toEqual([]);
    expect(Object.keys(paths).length).toBeGreaterThan(50);
  });

  it('answers nothing an operation does not say: a lie is found before it is sent', async () => {
    class Liar {
      @Answers(answers.room)
      room(): unknown {
        return null;
      }
    }
    const held = new HeldAnswers();
    const context = { getHandler: () => Liar.prototype.room, getClass: () => Liar } as unknown as ExecutionContext;
    const ask = (answer: unknown): Promise<unknown> => lastValueFrom(held.intercept(context, { handle: () => of(answer) } as CallHandler));
    await expect(ask({ freeMb: 5 })).resolves.toEqual({ freeMb: 5 });
    await expect(ask({ freeMb: 'much' })).rejects.toThrow(/Liar\.room.*freeMb/);
    await expect(ask({ freeMb: 5, secret: 'x' })).rejects.toThrow(/secret/);
    // A date is text by the time it has gone over the wire.
    await expect(ask({ freeMb: new Date() })).rejects.toThrow(/freeMb/);
  });
});

describe('refusals', () => {
  const sources = (folder: string): string =>
    readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .filter((f) => /\.tsx?$/.test(f) && !f.endsWith('.test.ts') && !f.endsWith('problems.ts'))
      .map((f) => readFileSync(join(ROOT, folder, f), 'utf8'))
      .join('\n');

  it('each has a status of a refusal and says what it means, and each is given somewhere', () => {
    const core = sources('core/src');
    const all = core + sources('server/src');
    for (const [code, { status, means }] of Object.entries(ERRORS)) {
      expect([code, status >= 400 && status < 600, means.endsWith('.')]).toEqual([code, true, true]);
      expect([code, (code in PROBLEMS ? core : all).includes(`'${code}'`)]).toEqual([code, true]);
    }
  });
});
