import { Controller, Get, Param, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { sheetSchema, type Account, type SheetRequest, answers } from '@true-ledger/contract';
import type { SpecSheet } from '@true-ledger/core/measure';
import { Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { SheetsService } from './sheets.service.js';

/** Spec sheets of the shop: layouts and limits with their source, every version kept. */
@ApiTags('spec sheets')
@Controller('api/sheets')
export class SheetsController {
  constructor(private readonly sheets: SheetsService) {}

  @Get()
  @Answers(answers.specSheets)
  latest(): Promise<SpecSheet[]> {
    return this.sheets.latest();
  }

  @Get(':id')
  @Answers(answers.specSheets)
  versions(@Param('id') id: string): Promise<SpecSheet[]> {
    return this.sheets.versions(id);
  }

  @Post()
  @Answers(answers.specSheet)
  save(@Checked(sheetSchema) body: SheetRequest, @Who() account: Account): Promise<SpecSheet> {
    return this.sheets.save(body, account.name);
  }
}
