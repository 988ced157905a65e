import { Global, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { AccountsController } from './accounts.controller.js';
import { AccountsService } from './accounts.service.js';
import { SessionGuard } from './guard.js';

@Global()
@Module({
  controllers: [AccountsController],
  providers: [AccountsService, { provide: APP_GUARD, useClass: SessionGuard }],
  exports: [AccountsService],
})
export class AccountsModule {}
