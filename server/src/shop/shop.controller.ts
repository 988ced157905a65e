import { Controller, Get, Param, ParseUUIDPipe, Put } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import {
  lettersSchema,
  partiesSchema,
  shopSchema,
  type Account,
  type CaseParties,
  type LettersRequest,
  type ShopRecord,
  type PartiesRequest,
  type ShopRequest,
  answers,
} from '@true-ledger/contract';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { LedgerService } from '../ledger/ledger.service.js';
import { ShopService } from './shop.service.js';

@ApiTags('shop')
@Controller('api/shop')
export class ShopController {
  constructor(private readonly shop: ShopService) {}

  @Get()
  @Answers(answers.shopRecord)
  get(): Promise<ShopRecord> {
    return this.shop.shop();
  }

  @Needs('owner')
  @Put()
  @Answers(answers.shopRecord)
  save(@Checked(shopSchema) body: ShopRequest, @Who() who: Account): Promise<ShopRecord> {
    return this.shop.saveShop(body, who.name);
  }

  @Needs('owner')
  @Put('letters')
  @Answers(answers.shopRecord)
  saveLetters(@Checked(lettersSchema) body: LettersRequest, @Who() who: Account): Promise<ShopRecord> {
    return this.shop.saveLetters(body, who.name);
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
  @Answers(answers.caseParties)
  async get(@Param('caseId', ParseUUIDPipe) caseId: string): Promise<CaseParties> {
    await this.ledger.state(caseId);
    return this.shop.parties(caseId);
  }

  @Needs('builder')
  @Put()
  @Answers(answers.caseParties)
  async save(
    @Param('caseId', ParseUUIDPipe) caseId: string,
    @Checked(partiesSchema) body: PartiesRequest,
    @Who() who: Account,
  ): Promise<CaseParties> {
    await this.ledger.state(caseId);
    return this.shop.saveParties(caseId, body, who.name);
  }
}
