import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { gradeBookRequestSchema, type Account, type GradeBookVersion, type GradeBookRequest, answers } from '@true-ledger/contract';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { GradeBooksService } from './gradeBooks.service.js';

@ApiTags('grade book')
@Controller('api/grade-books')
export class GradeBooksController {
  constructor(private readonly books: GradeBooksService) {}

  @Get()
  @Answers(answers.gradeBooks)
  all(): Promise<GradeBookVersion[]> {
    return this.books.all();
  }

  @Needs('owner')
  @Post()
  @Answers(answers.gradeBooks)
  save(@Checked(gradeBookRequestSchema) body: GradeBookRequest, @Who() who: Account): Promise<GradeBookVersion[]> {
    return this.books.save(body, who.name);
  }
}
