import { answerRunning, isBearing, type RunningQuestion } from '@true-ledger/core/running';
import { parseArgs } from 'node:util';

/** What a command answers, or a sentence: about its use, or about what it was given. */
type Answered = { readonly ok: true; readonly json: object } | { readonly ok: false; readonly usage: boolean; readonly sentence: string };

/** How files are read for a command: parsed JSON and text; null when that was told already. */
export interface Files {
  json(path: string): Promise<{ readonly json: unknown } | null>;
  text(path: string): Promise<string | null>;
}

const wrongUse = (sentence: string): Answered => ({ ok: false, usage: true, sentence });
const told = ({ sentence, field }: { readonly sentence: string; readonly field?: string }): Answered => ({
  ok: false,
  usage: false,
  sentence: `${sentence}${field ? ` (at ${field})` : ''}`,
});

const KNOWS: Readonly<Record<RunningQuestion, string>> = {
  loads: 'loads knows --pressure TABLE.csv and --every DEG.',
  film: 'film knows --bearing NAME, --pressure TABLE.csv, --table LOAD.csv and --every DEG.',
  oil: 'oil takes an engine file and knows no options.',
};

/** `loads`, `oil ENGINE.json` and `film ENGINE.json|BEARING.json`; null where a file could not be read, which was told. */
export async function running(command: RunningQuestion, args: readonly string[], files: Files): Promise<Answered | null> {
  let given;
  try {
    given = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: { pressure: { type: 'string' }, every: { type: 'string' }, bearing: { type: 'string' }, table: { type: 'string' } },
    });
  } catch {
    return wrongUse(KNOWS[command]);
  }
  const { pressure, every: everyText, bearing, table } = given.values;
  const [path] = given.positionals;
  if (path === undefined || given.positionals.length > 1) return wrongUse(`${command} needs the path of one file.`);
  if (command !== 'film' && (bearing !== undefined || table !== undefined)) return wrongUse('--bearing and --table belong to film.');
  if (command === 'oil' && (pressure ?? everyText) !== undefined) return wrongUse(KNOWS.oil);
  const every = everyText === undefined ? undefined : Number(everyText);
  if (every !== undefined && !(every > 0 && every <= 90)) return wrongUse('--every is an angle in degrees, up to 90.');
  const file = await files.json(path);
  const csvPath = table ?? pressure;
  const csv = csvPath === undefined ? undefined : await files.text(csvPath);
  if (!file || csv === null) return null;
  const alone = isBearing(file.json);
  if (table !== undefined && !alone)
    return wrongUse('--table goes with a bearing by itself (docs/formats/film.md); an engine takes --pressure.');
  if (alone && (bearing !== undefined || pressure !== undefined)) return wrongUse('A bearing by itself takes --table and --every.');
  const answered = answerRunning(command, file.json, { csv, everyDeg: every, bearing });
  return answered.ok ? { ok: true, json: answered.value } : told(answered.problem);
}
