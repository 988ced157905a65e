import { ArgumentsHost, Catch, HttpException, Logger, type ExceptionFilter, type PipeTransform } from '@nestjs/common';
import { STATUS_OF, type ApiError } from '@true-ledger/contract';
import type { Problem } from '@true-ledger/core';
import type { Response } from 'express';
import type { Schema } from 'joi';

/** A refusal with a code and a sentence for the person. */
export class ProblemError extends Error {
  constructor(readonly body: ApiError) {
    super(body.sentence);
  }

  static of(problem: Problem): ProblemError {
    return new ProblemError(problem);
  }
}

/** Checks a request body against a Joi schema; the first fault becomes the answer. */
export class JoiPipe implements PipeTransform {
  constructor(private readonly schema: Schema) {}

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
    const status = STATUS_OF[body.code] ?? (body.code === 'unexpected' ? 500 : 400);
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
    if (status === 400) return { code: 'request', sentence: 'The request could not be read. Nothing was changed.' };
    this.log.error(error instanceof Error ? error.stack : String(error));
    return {
      code: 'unexpected',
      sentence: 'Something failed in the server that should not. Nothing was recorded by this request; the log has the details. Try again.',
    };
  }
}
