import { Controller, Get, Param, Post, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { gaugeCheckSchema, gaugeSchema, type Account, type GaugeCheck, type GaugeCheckRequest, answers } from '@true-ledger/contract';
import type { Gauge } from '@true-ledger/core/units';
import { Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { GaugesService } from './gauges.service.js';

/** The shop's gauges. A reading carries a copy of its gauge, so changing one here changes no verdict already given. */
@ApiTags('gauges')
@Controller('api/gauges')
export class GaugesController {
  constructor(private readonly gauges: GaugesService) {}

  @Get()
  @Answers(answers.gauges)
  list(): Promise<Gauge[]> {
    return this.gauges.list();
  }

  @Put()
  @Answers(answers.gauge)
  save(@Checked(gaugeSchema) gauge: Gauge): Promise<Gauge> {
    return this.gauges.save(gauge);
  }

  @Get(':id/checks')
  @Answers(answers.gaugeChecks)
  checks(@Param('id') id: string): Promise<GaugeCheck[]> {
    return this.gauges.checks(id);
  }

  @Post(':id/checks')
  @Answers(answers.gaugeCheck)
  check(@Param('id') id: string, @Checked(gaugeCheckSchema) body: GaugeCheckRequest, @Who() account: Account): Promise<GaugeCheck> {
    return this.gauges.check(id, body, account);
  }
}
