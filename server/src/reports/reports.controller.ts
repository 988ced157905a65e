import { Controller, Get, Param, ParseUUIDPipe, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { ReportsService } from './reports.service.js';

@ApiTags('report')
@Controller('api/cases/:caseId/report.pdf')
export class ReportsController {
  constructor(private readonly reports: ReportsService) {}

  @Get()
  async pdf(@Param('caseId', ParseUUIDPipe) caseId: string, @Res() response: Response): Promise<void> {
    const { bytes, number } = await this.reports.pdf(caseId);
    response
      .set({
        'Content-Type': 'application/pdf',
        'Content-Disposition': `attachment; filename="account-${number.replace(/[^\w.-]/g, '_')}.pdf"`,
        'Cache-Control': 'no-store',
      })
      .send(bytes);
  }
}
