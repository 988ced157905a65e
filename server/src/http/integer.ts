import { Injectable, type PipeTransform } from '@nestjs/common';
import { ProblemError } from './problem.js';

/** A whole number in an address, within what the database counts to; `absent` where none is given. */
@Injectable()
export class IntegerPipe implements PipeTransform<unknown, number> {
  constructor(
    private readonly name: string,
    private readonly absent?: number,
  ) {}

  transform(value: unknown): number {
    if ((value === undefined || value === '') && this.absent !== undefined) return this.absent;
    if (typeof value === 'string' && /^\d{1,9}$/.test(value)) return Number(value);
    throw new ProblemError({
      code: 'request',
      sentence: `"${this.name}" is a whole number from 0 on. Nothing was changed.`,
      field: this.name,
    });
  }
}
