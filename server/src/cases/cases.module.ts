import { Module } from '@nestjs/common';
import { PolicyModule } from '../policy/policy.module.js';
import { GradeBooksModule } from '../gradeBooks/gradeBooks.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { CasesController } from './cases.controller.js';

@Module({ imports: [SheetsModule, GradeBooksModule, PolicyModule], controllers: [CasesController] })
export class CasesModule {}
