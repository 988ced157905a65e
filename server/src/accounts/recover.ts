import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { AppModule } from '../app.module.js';
import { readConfig } from '../config.js';
import { ProblemError } from '../http/problem.js';
import { AccountsService } from './accounts.service.js';

/** Prints the one-time token by which an owner sets a new password. For the server's own console. */
const app = await NestFactory.createApplicationContext(AppModule.with(readConfig()), { logger: ['error'] });
try {
  process.stdout.write(`RECOVER ${await app.get(AccountsService).makeRecovery(process.argv[2] ?? '')}\n`);
} catch (error) {
  process.stderr.write(`${error instanceof ProblemError ? error.message : String(error)}\n`);
  process.exitCode = 1;
} finally {
  await app.close();
}
