import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { gradeBookRequestSchema, type Account, type GradeBookVersion } from '@true-ledger/contract';
import type { GradeRule } from '@true-ledger/core';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { GradeBooksService } from './gradeBooks.service.js';

@ApiTags('grade book')
@Controller('api/grade-books')
export class GradeBooksController {
  constructor(private readonly books: GradeBooksService) {}

  @Get()
  all(): Promise<GradeBookVersion[]> {
    return this.books.all();
  }

  @Needs('owner')
  @Post()
  save(
    @Checked(gradeBookRequestSchema) body: { basedOn: string; rules: readonly GradeRule[]; note: string },
    @Who() who: Account,
  ): Promise<GradeBookVersion[]> {
    return this.books.save(body.basedOn, body.rules, body.note, who.name);
  }
}
