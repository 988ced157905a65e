import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { ROOT } from '../server/test/database.js';

interface AxeResult {
  readonly violations: ReadonlyArray<{
    readonly id: string;
    readonly impact: string | null;
    readonly nodes: ReadonlyArray<{ readonly html: string; readonly failureSummary?: string }>;
  }>;
}

/** Runs axe (WCAG 2.2 A and AA rules) on the page; evaluated through the debugger, so the page's content policy stays in force. */
export async function axeFaults(page: Page): Promise<string[]> {
  const source = readFileSync(join(ROOT, 'node_modules/axe-core/axe.min.js'), 'utf8');
  await page.evaluate(source);
  const result = (await page.evaluate(
    `axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })`,
  )) as AxeResult;
  return result.violations.flatMap((v) =>
    v.nodes
      .slice(0, 3)
      .map((n) => `${v.id} (${v.impact}): ${n.html.slice(0, 160)} – ${(n.failureSummary ?? '').split('\n')[1]?.trim() ?? ''}`),
  );
}
