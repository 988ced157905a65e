import { statfs } from 'node:fs/promises';
import { Controller, Get, Inject, Module, type DynamicModule } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { answers } from '@true-ledger/contract';
import { Answers } from './http/answers.js';
import { DataSource } from 'typeorm';
import { AccountsModule } from './accounts/accounts.module.js';
import { Public } from './accounts/guard.js';
import { BundlesModule } from './bundles/bundles.module.js';
import { CasesModule } from './cases/cases.module.js';
import { ClipsModule } from './clips/clips.module.js';
import { CausesController } from './causes/causes.controller.js';
import { ComputeModule } from './compute/compute.module.js';
import { CONFIG, type ServerConfig } from './config.js';
import { DatabaseModule } from './database/database.module.js';
import { DemoModule } from './demo/demo.module.js';
import { AcrossModule } from './across/across.module.js';
import { EnginesModule } from './engines/engines.module.js';
import { GradeBooksModule } from './gradeBooks/gradeBooks.module.js';
import { PolicyModule } from './policy/policy.module.js';
import { GaugesModule } from './gauges/gauges.module.js';
import { IntakeModule } from './intake/intake.module.js';
import { KeysModule } from './keys/keys.module.js';
import { LedgerModule } from './ledger/ledger.module.js';
import { RunningController } from './running/running.controller.js';
import { MeasureController } from './measure/measure.controller.js';
import { PhotosModule } from './photos/photos.module.js';
import { ReferencesModule } from './references/references.module.js';
import { ReadingsModule } from './reading/readings.module.js';
import { PracticeModule } from './practice/practice.module.js';
import { PricesModule } from './prices/prices.module.js';
import { ReportsModule } from './reports/reports.module.js';
import { SealsModule } from './seals/seals.module.js';
import { ShopModule } from './shop/shop.module.js';
import { SheetsModule } from './sheets/sheets.module.js';
import { SurfacesModule } from './surfaces/surfaces.module.js';
import { TagsController } from './tags/tags.controller.js';

@ApiTags('health')
@Controller('api/health')
class HealthController {
  constructor(private readonly db: DataSource) {}

  @Public()
  @Get()
  @Answers(answers.done)
  async health(): Promise<{ ok: true }> {
    await this.db.query('SELECT 1');
    return { ok: true };
  }
}

/** How phones reach this server. */
@ApiTags('health')
@Controller('api/network')
class NetworkController {
  constructor(@Inject(CONFIG) private readonly config: ServerConfig) {}

  @Get()
  @Answers(answers.network)
  network(): { addresses: readonly string[] } {
    return { addresses: this.config.addresses ?? [] };
  }

  /** Room left on the disk of the server, MB; where the database lies on another machine, that one's is not known here. */
  @Get('room')
  @Answers(answers.room)
  async room(): Promise<{ freeMb: number }> {
    const { bavail, bsize } = await statfs(this.config.keysFolder);
    return { freeMb: Math.floor((bavail * bsize) / 1e6) };
  }
}

@Module({})
class ConfigModule {
  static with(config: ServerConfig): DynamicModule {
    return { module: ConfigModule, global: true, providers: [{ provide: CONFIG, useValue: config }], exports: [CONFIG] };
  }
}

@Module({})
export class AppModule {
  static with(config: ServerConfig): DynamicModule {
    return {
      module: AppModule,
      imports: [
        ConfigModule.with(config),
        DatabaseModule,
        KeysModule,
        IntakeModule,
        ComputeModule,
        AccountsModule,
        LedgerModule,
        CasesModule,
        PhotosModule,
        ClipsModule,
        SheetsModule,
        ReadingsModule,
        SurfacesModule,
        GradeBooksModule,
        PolicyModule,
        ReferencesModule,
        ReportsModule,
        BundlesModule,
        PricesModule,
        GaugesModule,
        EnginesModule,
        AcrossModule,
        PracticeModule,
        DemoModule,
        SealsModule,
        ShopModule,
      ],
      controllers: [HealthController, NetworkController, MeasureController, RunningController, CausesController, TagsController],
    };
  }
}
