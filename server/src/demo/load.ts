import '../platform.js';
import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import { AppModule } from '../app.module.js';
import { readConfig } from '../config.js';
import { DemoService } from './demo.service.js';

/** Takes the demo in and ends, for those who want it whole before a server starts. */
const app = await NestFactory.createApplicationContext(AppModule.with(readConfig()), { logger: ['error', 'warn'] });
const demo = app.get(DemoService);
await demo.takeIn(await demo.prepare());
await app.close();
