import { Controller, Get, Param, ParseUUIDPipe, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { partiesSchema, shopSchema, type Account, type CaseParties, type ShopRecord } from '@true-ledger/contract';
import type { Letterhead, Parties } from '@true-ledger/core';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ShopService } from './shop.service.js';

@ApiTags('shop')
@Controller('api/shop')
export class ShopController {
  constructor(private readonly shop: ShopService) {}

  @Get()
  get(): Promise<ShopRecord> {
    return this.shop.shop();
  }

  @Needs('owner')
  @Put()
  save(@Checked(shopSchema) body: { basedOn: number; letterhead: Letterhead }, @Who() who: Account): Promise<ShopRecord> {
    return this.shop.saveShop(body, who.name);
  }
}

/** Client and engine of a case; for those who work on it, not for readers. */
@ApiTags('account')
@Controller('api/cases/:caseId/parties')
export class PartiesController {
  constructor(
    private readonly shop: ShopService,
    private readonly ledger: LedgerService,
  ) {}

  @Needs('builder')
  @Get()
  async get(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<CaseParties> {
    await this.ledger.state(caseId);
    return this.shop.parties(caseId);
  }

  @Needs('builder')
  @Put()
  async save(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(partiesSchema) body: { basedOn: number; parties: Parties },
    @Who() who: Account,
  ): Promise<CaseParties> {
    await this.ledger.state(caseId);
    return this.shop.saveParties(caseId, body, who.name);
  }
}
