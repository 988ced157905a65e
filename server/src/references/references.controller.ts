import { Controller, Delete, Get, Param, ParseUUIDPipe, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { referenceSchema, type Account, type ReferencePart } from '@true-ledger/contract';
import type { Response } from 'express';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { ReferencesService } from './references.service.js';

@ApiTags('reference parts')
@Controller('api/references')
export class ReferencesController {
  constructor(private readonly references: ReferencesService) {}

  @Get()
  all(@Who() who: Account): Promise<ReferencePart[]> {
    return this.references.all(who);
  }

  @Needs('builder')
  @Post()
  keep(
    @Checked(referenceSchema) body: { id: string; name: string; note: string; caseId: string; station: string; sha256: string },
    @Who() who: Account,
  ): Promise<ReferencePart> {
    return this.references.keep(body, who.name);
  }

  @Get(':id/picture')
  async picture(@Param('id', ParseUUIDPipe) id: string, @Who() who: Account, @Res() response: Response): Promise<void> {
    const bytes = await this.references.picture(id, who);
    response.set({ 'Content-Type': 'image/jpeg', 'Cache-Control': 'private, no-cache' }).send(bytes);
  }

  @Needs('owner')
  @Delete(':id')
  async remove(@Param('id', ParseUUIDPipe) id: string): Promise<{ ok: true }> {
    await this.references.remove(id);
    return { ok: true };
  }
}
