import { Module } from '@nestjs/common';
import { GradeBooksModule } from '../gradeBooks/gradeBooks.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { CasesController } from './cases.controller.js';

@Module({ imports: [SheetsModule, GradeBooksModule], controllers: [CasesController] })
export class CasesModule {}
