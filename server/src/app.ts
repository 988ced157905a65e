import './platform.js';
import 'reflect-metadata';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { WsAdapter } from '@nestjs/platform-ws';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import { LIMITS } from '@true-ledger/contract';
import cookieParser from 'cookie-parser';
import staticGzip from 'express-static-gzip';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import type { Server } from 'node:http';
import { join } from 'node:path';
import { AppModule } from './app.module.js';
import { AccountsService } from './accounts/accounts.service.js';
import { sessionToken } from './accounts/guard.js';
import type { ServerConfig } from './config.js';
import { describeProblems } from './http/checked.js';
import { gate } from './http/gate.js';
import { ProblemFilter } from './http/problem.js';

/** Builds the application: API under /api, the built web pages for everything else. */
export async function makeApp(config: ServerConfig): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    logger: ['error', 'warn'],
    bodyParser: false,
    abortOnError: false,
    ...(config.tls ? { httpsOptions: { cert: config.tls.cert, key: config.tls.key } } : {}),
  });
  app.set('trust proxy', config.trustedProxies.length > 0 ? [...config.trustedProxies] : false);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          // A film is stepped through from the bytes the page fetched.
          mediaSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          manifestSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    }),
  );
  app.use(cookieParser());
  app.useWebSocketAdapter(new WsAdapter(app));
  app.use(express.json({ limit: LIMITS.jsonBytes }));
  app.use(gate);
  bound(app.getHttpServer() as Server);
  app.useGlobalFilters(new ProblemFilter());
  await addDocs(app);
  addPages(app, config);
  app.enableShutdownHooks(['SIGTERM', 'SIGINT']);
  return app;
}

/** A picture over a bad line may take long; a request that does not even say what it wants may not. */
function bound(server: Server): void {
  server.requestTimeout = 2 * 3600_000;
  server.headersTimeout = 60_000;
}

/** OpenAPI at /api/docs, for signed-in people only. */
async function addDocs(app: NestExpressApplication): Promise<void> {
  app.use('/api/docs', (request: Request, response: Response, next: NextFunction) => {
    const token = sessionToken(request);
    const refuse = (): void => void response.status(401).json({ code: 'signed-out', sentence: 'Sign in to read the API description.' });
    if (!token) return refuse();
    app
      .get(AccountsService)
      .accountOfToken(token)
      .then((found) => (found ? next() : refuse()), next);
  });
  const options = new DocumentBuilder()
    .setTitle('True Ledger')
    .setDescription('Cases, ledger, pictures, causes, report and bundle.')
    .setVersion('1')
    .build();
  SwaggerModule.setup('api/docs', app, () => describeProblems(SwaggerModule.createDocument(app, options)), {
    jsonDocumentUrl: 'api/docs/openapi.json',
  });
}

function addPages(app: NestExpressApplication, config: ServerConfig): void {
  app.use('/authority.crt', (_request: Request, response: Response, next: NextFunction) => {
    if (!config.authority) return next();
    response
      .set({ 'Content-Type': 'application/x-x509-ca-cert', 'Content-Disposition': 'attachment; filename="true-ledger.crt"' })
      .send(Buffer.from(config.authority));
  });
  const pages = join(config.root, 'web', 'dist');
  if (!existsSync(pages)) return;
  // Sent as they were compressed when they were built; named by their hash, they never change.
  const compressed = { enableBrotli: true, orderPreference: ['br', 'gz'] as ['br', 'gz'], index: false as const };
  app.use('/assets', staticGzip(join(pages, 'assets'), { ...compressed, serveStatic: { immutable: true, maxAge: '365d' } }));
  app.use('/assets', (_request: Request, response: Response) => response.status(404).end());
  app.use(
    staticGzip(pages, {
      ...compressed,
      serveStatic: { cacheControl: false, setHeaders: (r) => r.setHeader('Cache-Control', 'no-cache') },
    }),
  );
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || request.path.startsWith('/api')) return next();
    response.set('Cache-Control', 'no-cache').sendFile(join(pages, 'index.html'));
  });
}
