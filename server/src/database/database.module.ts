import { Global, Module, type OnApplicationShutdown } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CONFIG, type ServerConfig } from '../config.js';
import { makeDataSource } from './dataSource.js';

@Global()
@Module({
  providers: [
    {
      provide: DataSource,
      inject: [CONFIG],
      useFactory: async (config: ServerConfig): Promise<DataSource> => makeDataSource(config.databaseUrl).initialize(),
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
