import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { priceBookRequestSchema, type Account, type PriceBookVersion, type PriceBookRequest, answers } from '@true-ledger/contract';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { PricesService } from './prices.service.js';

@ApiTags('prices')
@Controller('api/prices')
export class PricesController {
  constructor(private readonly prices: PricesService) {}

  @Get()
  @Answers(answers.priceBooks)
  all(): Promise<PriceBookVersion[]> {
    return this.prices.all();
  }

  @Needs('owner')
  @Post()
  @Answers(answers.priceBooks)
  save(@Checked(priceBookRequestSchema) body: PriceBookRequest, @Who() who: Account): Promise<PriceBookVersion[]> {
    return this.prices.save(body, who.name);
  }
}
