import { SetMetadata, type CallHandler, type ExecutionContext, type NestInterceptor } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import { ApiResponse } from '@nestjs/swagger';
import type { Schema } from 'joi';
import { map, type Observable } from 'rxjs';
import { openApiOf } from './checked.js';

const ANSWER = 'true-ledger:answer';

/** What an operation answers, by its schema in the contract: described at /api/docs, and held to it in the tests. */
export const Answers = (schema: Schema): MethodDecorator => {
  const described = ApiResponse({ status: '2XX' as never, description: 'Done', schema: openApiOf(schema) });
  const kept = SetMetadata(ANSWER, schema);
  return (target, key, descriptor) => {
    described(target, key, descriptor);
    kept(target, key, descriptor);
  };
};

/** Holds every answer against the schema its operation names; the tests put it in, no server carries it. */
export class HeldAnswers implements NestInterceptor {
  private readonly reflector = new Reflector();

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const schema = this.reflector.get<Schema | undefined>(ANSWER, context.getHandler());
    if (!schema) return next.handle();
    return next.handle().pipe(
      map((answer: unknown) => {
        // As it goes over the wire.
        const sent = answer === undefined ? undefined : (JSON.parse(JSON.stringify(answer)) as unknown);
        const { error } = schema.validate(sent, { convert: false });
        if (error)
          throw new Error(
            `${context.getClass().name}.${context.getHandler().name} answers what its contract does not say: ${error.message}`,
          );
        return answer;
      }),
    );
  }
}
