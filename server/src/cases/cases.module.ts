import { Module } from '@nestjs/common';
import { SheetsModule } from '../sheets/sheets.module.js';
import { CasesController } from './cases.controller.js';

@Module({ imports: [SheetsModule], controllers: [CasesController] })
export class CasesModule {}
