import { DataSource } from 'typeorm';
import { ENTITIES } from './entities.js';
import {
  Documents1796000000000,
  FirstSchema1795000000000,
  Gauges1795700000000,
  Ground1796100000000,
  Surfaces1796300000000,
  Across1796700000000,
  Drills1796800000000,
  Engines1796600000000,
  PracticeEngines1796900000000,
  Letters1796500000000,
  Waits1796400000000,
  Witness1796200000000,
  Policy1795900000000,
  ReadingPictures1795800000000,
  SheetsAndClips1795600000000,
} from './migrations.js';

/** Connection to the ledger's PostgreSQL; schema only by migrations. */
export function makeDataSource(url: string): DataSource {
  return new DataSource({
    type: 'postgres',
    url,
    entities: ENTITIES,
    migrations: [
      FirstSchema1795000000000,
      SheetsAndClips1795600000000,
      Gauges1795700000000,
      ReadingPictures1795800000000,
      Policy1795900000000,
      Documents1796000000000,
      Ground1796100000000,
      Witness1796200000000,
      Surfaces1796300000000,
      Waits1796400000000,
      Letters1796500000000,
      Engines1796600000000,
      Across1796700000000,
      Drills1796800000000,
      PracticeEngines1796900000000,
    ],
    migrationsRun: false,
    synchronize: false,
    logging: false,
    extra: { max: 12, connectionTimeoutMillis: 4000, keepAlive: true },
    poolErrorHandler: () => undefined,
  });
}
