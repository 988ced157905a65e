import { Controller, Get, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { gaugeSchema } from '@true-ledger/contract';
import type { Gauge } from '@true-ledger/core';
import { DataSource } from 'typeorm';
import { Checked } from '../http/checked.js';
import { GaugeRow } from '../database/entities.js';

/** The shop's gauges. A reading carries a copy of its gauge, so changing one here changes no verdict already given. */
@ApiTags('gauges')
@Controller('api/gauges')
export class GaugesController {
  constructor(private readonly db: DataSource) {}

  @Get()
  async list(): Promise<Gauge[]> {
    return (await this.db.getRepository(GaugeRow).find({ order: { id: 'ASC' } })).map((r) => r.gauge);
  }

  @Put()
  async save(@Checked(gaugeSchema) gauge: Gauge): Promise<Gauge> {
    await this.db.getRepository(GaugeRow).save({ id: gauge.id, gauge });
    return gauge;
  }
}
