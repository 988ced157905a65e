import { BEARING_FORMAT, readBearing } from '../film/bearingFile.js';
import { bearingJson } from '../film/filmJson.js';
import { fail, ok, type Result } from '../kit/result.js';
import { readEngine } from '../loads/engineFile.js';
import { engineFilmJson, loadsJson } from '../loads/loadsJson.js';
import { oilJson, readCircuit } from '../oil/oilFile.js';

/** What can be asked of a running engine; of a bearing by itself, its film. */
export type RunningQuestion = 'loads' | 'film' | 'oil';

export interface RunningOptions {
  /** Table that goes with the file: the load of a bearing, the cylinder pressure of an engine. */
  readonly csv?: string | undefined;
  /** Angle between the figures that are told, degrees. */
  readonly everyDeg?: number | undefined;
  /** The one bearing whose film is asked. */
  readonly bearing?: string | undefined;
}

/** Answers for a parsed engine or bearing file as the command line prints it (docs/formats/loads.md, film.md, oil.md). */
export function answerRunning(question: RunningQuestion, json: unknown, { csv, everyDeg, bearing }: RunningOptions = {}): Result<object> {
  if (isBearing(json)) {
    if (question !== 'film') return fail('engine-file', `${question} needs an engine; of a bearing by itself ask film.`, 'format');
    const read = readBearing(json, csv);
    return read.ok ? ok(bearingJson(read.value, everyDeg)) : read;
  }
  const engine = readEngine(json, csv);
  if (!engine.ok) return engine;
  if (question === 'loads') return ok(loadsJson(engine.value, everyDeg));
  if (question === 'film') return engineFilmJson(engine.value, bearing);
  const circuit = readCircuit(engine.value, json as object);
  return circuit.ok ? ok(oilJson(circuit.value)) : circuit;
}

/** Is this a bearing by itself? */
export const isBearing = (json: unknown): boolean => (json as { format?: unknown } | null)?.format === BEARING_FORMAT;
