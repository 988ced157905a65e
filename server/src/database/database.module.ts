import { Global, Module, type OnApplicationShutdown } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { makeDataSource } from './dataSource.js';

/** Any number, the same for every server of a shop. */
const MIGRATION_LOCK = 7_140_771;

/** Brings the schema up to date. Of servers started at once, one does and the others wait. */
async function migrate(db: DataSource): Promise<DataSource> {
  const holder = db.createQueryRunner();
  try {
    await holder.query('SELECT pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await db.runMigrations({ transaction: 'each' });
    return db;
  } catch (error) {
    await db.destroy().catch(() => undefined);
    throw error;
  } finally {
    await holder.query('SELECT pg_advisory_unlock($1)', [MIGRATION_LOCK]).catch(() => undefined);
    await holder.release().catch(() => undefined);
  }
}

@Global()
@Module({
  providers: [
    {
      provide: DataSource,
      inject: [CONFIG],
      useFactory: async (config: ServerConfig): Promise<DataSource> => migrate(await makeDataSource(config.databaseUrl).initialize()),
    },
  ],
  exports: [DataSource],
})
export class DatabaseModule implements OnApplicationShutdown {
  constructor(private readonly dataSource: DataSource) {}

  async onApplicationShutdown(): Promise<void> {
    if (this.dataSource.isInitialized) await this.dataSource.destroy();
  }
}
