import { Controller, Get, Module } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { answers } from '@true-ledger/contract';
import { Answers } from '../http/answers.js';
import { Public } from '../accounts/guard.js';
import { BundlesModule } from '../bundles/bundles.module.js';
import { EnginesModule } from '../engines/engines.module.js';
import { GaugesModule } from '../gauges/gauges.module.js';
import { PracticeModule } from '../practice/practice.module.js';
import { SheetsModule } from '../sheets/sheets.module.js';
import { ShopModule } from '../shop/shop.module.js';
import { DemoService, type DemoProgress } from './demo.service.js';

@ApiTags('health')
@Controller('api/demo')
class DemoController {
  constructor(private readonly demo: DemoService) {}

  /** How many of the demo cases are in; open to who is not signed in yet. */
  @Public()
  @Get()
  @Answers(answers.demoProgress)
  progress(): DemoProgress {
    return this.demo.progress;
  }
}

@Module({
  imports: [BundlesModule, EnginesModule, GaugesModule, PracticeModule, SheetsModule, ShopModule],
  controllers: [DemoController],
  providers: [DemoService],
})
export class DemoModule {}
