import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { priceBookRequestSchema, type Account, type PriceBookVersion } from '@true-ledger/contract';
import type { PriceBook } from '@true-ledger/core';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { PricesService } from './prices.service.js';

@ApiTags('prices')
@Controller('api/prices')
export class PricesController {
  constructor(private readonly prices: PricesService) {}

  @Get()
  all(): Promise<PriceBookVersion[]> {
    return this.prices.all();
  }

  @Needs('owner')
  @Post()
  save(
    @Checked(priceBookRequestSchema) body: { basedOn: number; currency: string; lines: PriceBook['lines']; note: string },
    @Who() who: Account,
  ): Promise<PriceBookVersion[]> {
    return this.prices.save(body, who.name);
  }
}
