import { Controller, Get, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { Answers } from '../http/answers.js';
import { policyRequestSchema, type Account, type PolicyChange, type PolicyRequest, answers } from '@true-ledger/contract';
import { Needs, Who } from '../accounts/guard.js';
import { Checked } from '../http/checked.js';
import { PolicyService } from './policy.service.js';

@ApiTags('policy')
@Controller('api/policy')
export class PolicyController {
  constructor(private readonly policy: PolicyService) {}

  @Get()
  @Answers(answers.policyChanges)
  all(): Promise<PolicyChange[]> {
    return this.policy.all();
  }

  @Needs('owner')
  @Post()
  @Answers(answers.policyChanges)
  save(@Checked(policyRequestSchema) body: PolicyRequest, @Who() who: Account): Promise<PolicyChange[]> {
    return this.policy.save(body.question, body.position, body.reason, who.name);
  }
}
