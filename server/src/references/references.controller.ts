import { Controller, Delete, Get, Param, ParseUUIDPipe, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { referenceSchema, type Account, type ReferencePart, type ReferenceRequest, answers } from '@true-ledger/contract';
import type { Response } from 'express';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { ReferencesService } from './references.service.js';

@ApiTags('reference parts')
@Controller('api/references')
export class ReferencesController {
  constructor(private readonly references: ReferencesService) {}

  @Get()
  @Answers(answers.referenceParts)
  all(@Who() who: Account): Promise<ReferencePart[]> {
    return this.references.all(who);
  }

  @Needs('builder')
  @Post()
  @Answers(answers.referencePart)
  keep(@Checked(referenceSchema) body: ReferenceRequest, @Who() who: Account): Promise<ReferencePart> {
    return this.references.keep(body, who.name);
  }

  @Get(':id/picture')
  async picture(@Param('id', ParseUUIDPipe) id: string, @Who() who: Account, @Res() response: Response): Promise<void> {
    const bytes = await this.references.picture(id, who);
    response.set({ 'Content-Type': 'image/jpeg', 'Cache-Control': 'private, no-cache' }).send(bytes);
  }

  @Needs('owner')
  @Delete(':id')
  @Answers(answers.done)
  async remove(@Param('id', ParseUUIDPipe) id: string): Promise<{ ok: true }> {
    await this.references.remove(id);
    return { ok: true };
  }
}
