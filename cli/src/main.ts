import { readFile } from 'node:fs/promises';
import {
  diagnose,
  diagnosisJson,
  engineTemplate,
  ENGINE_TEMPLATES,
  FEATURES,
  openBundle,
  PATTERNS,
  readCaseFile,
  stationsOf,
  verifyBundle,
} from '@true-ledger/core';

const HELP = `true-ledger – reads cases and bundles without a server

  true-ledger verify BUNDLE.zip        verify the chain and pictures of an exported bundle
  true-ledger diagnose CASE.json       ranked causes of a case file, as JSON
  true-ledger stations TEMPLATE        places of an engine template
  true-ledger patterns                 damage patterns known here
  true-ledger features                 evidence features known here
  true-ledger templates                engine templates

Exit code: 0 all right, 1 the bundle does not verify, 2 the input could not be read.`;

/** Output of the tool; replaced in tests. */
export interface Terminal {
  out(text: string): void;
  error(text: string): void;
}

const CONSOLE: Terminal = { out: (t) => process.stdout.write(`${t}\n`), error: (t) => process.stderr.write(`${t}\n`) };

/** Runs one command; returns the exit code. */
export async function run(args: readonly string[], terminal: Terminal = CONSOLE): Promise<number> {
  const [command, target] = args;
  const list = (rows: ReadonlyArray<{ id: string; name: string }>): number => {
    terminal.out(rows.map((r) => `${r.id}\t${r.name}`).join('\n'));
    return 0;
  };
  switch (command) {
    case 'verify':
      return target ? verify(target, terminal) : usage(terminal, 'verify needs the path of a bundle.');
    case 'diagnose':
      return target ? diagnoseFile(target, terminal) : usage(terminal, 'diagnose needs the path of a case file.');
    case 'stations': {
      const template = engineTemplate(target ?? '');
      return template ? list(stationsOf(template.layout)) : usage(terminal, `"${target ?? ''}" is not an engine template.`);
    }
    case 'patterns':
      return list(PATTERNS);
    case 'features':
      return list(FEATURES);
    case 'templates':
      return list(ENGINE_TEMPLATES);
    case undefined:
    case 'help':
    case '--help':
      terminal.out(HELP);
      return 0;
    default:
      return usage(terminal, `"${command}" is not a command.`);
  }
}

function usage(terminal: Terminal, sentence: string): number {
  terminal.error(`${sentence}\n\n${HELP}`);
  return 2;
}

async function read(path: string, terminal: Terminal): Promise<Uint8Array | null> {
  try {
    return new Uint8Array(await readFile(path));
  } catch {
    terminal.error(`"${path}" could not be read. Check the path.`);
    return null;
  }
}

async function verify(path: string, terminal: Terminal): Promise<number> {
  const bytes = await read(path, terminal);
  if (!bytes) return 2;
  const opened = openBundle(bytes);
  if (!opened.ok) {
    terminal.error(opened.problem.sentence);
    return 2;
  }
  const verdict = verifyBundle(opened.value);
  terminal.out(JSON.stringify(verdict, null, 2));
  if (verdict.broken)
    terminal.error(`Broken at entry ${verdict.broken.seq}${verdict.broken.id ? ` (${verdict.broken.id})` : ''}: ${verdict.broken.reason}.`);
  for (const line of verdict.disagreements) terminal.error(`${line}.`);
  if (verdict.ok) terminal.error(`All ${verdict.entries} entries and ${verdict.photos} pictures hold. Head ${verdict.head}.`);
  return verdict.ok ? 0 : 1;
}

async function diagnoseFile(path: string, terminal: Terminal): Promise<number> {
  const bytes = await read(path, terminal);
  if (!bytes) return 2;
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(bytes));
  } catch (error) {
    terminal.error(`"${path}" is not JSON: ${error instanceof Error ? error.message : 'unreadable'}.`);
    return 2;
  }
  const result = readCaseFile(json);
  if (!result.ok) {
    terminal.error(`${result.problem.sentence}${result.problem.field ? ` (at ${result.problem.field})` : ''}`);
    return 2;
  }
  terminal.out(JSON.stringify(diagnosisJson(diagnose(result.value.view)), null, 2));
  return 0;
}
