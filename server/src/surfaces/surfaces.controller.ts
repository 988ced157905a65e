import { Controller, Get, Param, ParseEnumPipe, ParseUUIDPipe, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { SURFACE_WIDTHS, type Account, type SurfaceSize } from '@true-ledger/contract';
import type { Request, Response } from 'express';
import { Who } from '../accounts/guard.js';
import { SurfacesService } from './surfaces.service.js';

/** The photographed surface of a place, unrolled on its frame with the light taken out, as WebP; transparent where nobody saw it. */
@ApiTags('pictures')
@Controller('api/cases/:caseId/surfaces')
export class SurfacesController {
  constructor(private readonly surfaces: SurfacesService) {}

  @Get(':station/:size')
  async surface(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Param('station') station: string,
    @Param('size', new ParseEnumPipe(Object.fromEntries(Object.keys(SURFACE_WIDTHS).map((size) => [size, size])))) size: SurfaceSize,
    @Who() who: Account,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const shared = who.role === 'reader';
    const wanted = await this.surfaces.wanted(caseId, station, shared);
    const tag = `"${wanted.key}-${size}"`;
    response.set({ 'Cache-Control': 'private, no-cache', ETag: tag, Vary: 'Cookie' });
    if (request.headers['if-none-match'] === tag) return void response.status(304).end();
    const bytes = await this.surfaces.bytes(caseId, station, wanted, size, shared);
    response.set({ 'Content-Type': 'image/webp', 'Content-Disposition': 'inline' }).send(Buffer.from(bytes));
  }
}
