import { ArgumentsHost, Catch, HttpException, Logger, type ExceptionFilter, type PipeTransform } from '@nestjs/common';
import { ERRORS, type ApiError, type Refusal } from '@true-ledger/contract';

import type { Response } from 'express';
import type { Schema } from 'joi';

/** A refusal with a code and a sentence for the person. */
export class ProblemError extends Error {
  constructor(readonly body: ApiError) {
    super(body.sentence);
  }

  static of(problem: Refusal): ProblemError {
    return new ProblemError(problem);
  }
}

/** Checks a request body against a Joi schema; the first fault becomes the answer. */
export class JoiPipe implements PipeTransform {
  private readonly schema: Schema;

  /** A request without a body is a request that lacks everything. */
  constructor(schema: Schema) {
    this.schema = schema.required().label('The request');
  }

  transform(value: unknown): unknown {
    const { error, value: checked } = this.schema.validate(value, { abortEarly: true, convert: false, stripUnknown: false });
    if (!error) return checked;
    const detail = error.details[0];
    throw new ProblemError({
      code: 'request',
      sentence: `${detail?.message ?? 'The request does not fit'}. Nothing was changed.`,
      field: detail?.path.join('.'),
    });
  }
}

const CONNECTION_FAULTS =
  /ECONNREFUSED|ECONNRESET|Connection terminated|terminating connection|timeout exceeded when trying to connect|the database system is (?:shutting down|starting up)|57P0\d|EPIPE|Client has encountered a connection error|not queryable|Driver not Connected/i;

/** What PostgreSQL says no to, by SQLSTATE (PostgreSQL manual, appendix A): the sentence it becomes. */
const STORE_REFUSALS: ReadonlyArray<readonly [RegExp, ApiError]> = [
  [
    /^23505$/,
    {
      code: 'taken-meanwhile',
      sentence: 'Somebody recorded the same thing in the same moment. Nothing was recorded twice; look at what is there now.',
    },
  ],
  [
    /^(?:22P0[25]|22021|22003|22008|22P02|54000)$/,
    { code: 'request', sentence: 'The request holds a character or figure that cannot be kept. Nothing was changed.' },
  ],
  [
    /^(?:53100|53200)$/,
    {
      code: 'disk-full',
      sentence:
        'The disk of the server is full: nothing was recorded by this request, and what was confirmed before is safe. Free some room on it, then send this again; reading goes on meanwhile.',
    },
  ],
  [
    /^(?:53300|55P03|57014|40001|40P01)$/,
    { code: 'busy', sentence: 'The server has too much to do at once. Nothing was changed by this request; try again in a moment.' },
  ],
];

function storeRefusal(error: unknown): ApiError | null {
  const { code, message } = (error ?? {}) as { code?: unknown; message?: unknown };
  if (code === 'ENOSPC' || code === 'EDQUOT' || /No space left on device/i.test(String(message))) return STORE_REFUSALS[2]![1];
  return typeof code === 'string' ? (STORE_REFUSALS.find(([state]) => state.test(code))?.[1] ?? null) : null;
}

export function isConnectionFault(error: unknown): boolean {
  const e = error as { message?: string; code?: string; errors?: unknown[] } | undefined;
  if (!e) return false;
  return CONNECTION_FAULTS.test(`${e.code ?? ''} ${e.message ?? ''}`) || (e.errors ?? []).some(isConnectionFault);
}

/** Turns every failure into the one error shape; details of unexpected ones go to the log, never to the page. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly log = new Logger('http');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const body = this.bodyOf(error);
    const status = ERRORS[body.code]?.status ?? 400;
    response.status(status).type('application/json').json(body);
  }

  private bodyOf(error: unknown): ApiError {
    if (error instanceof ProblemError) return error.body;
    if (isConnectionFault(error))
      return {
        code: 'store-unavailable',
        sentence:
          'The ledger cannot be reached just now; nothing was recorded by this request. What was confirmed before is safe. It is tried again by itself.',
      };
    const refusal = storeRefusal(error);
    if (refusal) return refusal;
    const status = error instanceof HttpException ? error.getStatus() : (error as { status?: number } | null)?.status;
    if (error instanceof Error && error.message === 'Request aborted')
      return { code: 'cut-off', sentence: 'The connection ended before everything had arrived. Nothing was stored; send it again.' };
    if (status === 413)
      return {
        code: 'file-too-large',
        sentence:
          'The file is larger than is taken: pictures up to 40 MB, clips up to 60 MB, bundles up to 1 GB. Nothing was stored. Send a smaller one.',
        field: 'file',
      };
    if (status === 404) return { code: 'not-found', sentence: 'There is nothing at this address.' };
    if (status === 415)
      return {
        code: 'request-encoding',
        sentence: 'The request is written in an encoding that is not read here. Send UTF-8. Nothing was changed.',
      };
    if (status !== undefined && status >= 400 && status < 500)
      return { code: 'request', sentence: 'The request could not be read. Nothing was changed.' };
    if (error instanceof Error && /Unexpected end of form|Malformed part header|Multipart|Boundary not found|busboy/i.test(error.message))
      return { code: 'cut-off', sentence: 'The file did not arrive whole. Nothing was stored; send it again.' };
    this.log.error(error instanceof Error ? error.stack : String(error));
    return {
      code: 'unexpected',
      sentence: 'Something failed in the server that should not. Nothing was recorded by this request; the log has the details. Try again.',
    };
  }
}
