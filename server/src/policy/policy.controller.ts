import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { policyRequestSchema, type Account, type PolicyChange } from '@true-ledger/contract';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { PolicyService } from './policy.service.js';

@ApiTags('policy')
@Controller('api/policy')
export class PolicyController {
  constructor(private readonly policy: PolicyService) {}

  @Get()
  all(): Promise<PolicyChange[]> {
    return this.policy.all();
  }

  @Needs('owner')
  @Post()
  save(
    @Checked(policyRequestSchema) body: { question: string; position: string; reason: string },
    @Who() who: Account,
  ): Promise<PolicyChange[]> {
    return this.policy.save(body.question, body.position, body.reason, who.name);
  }
}
