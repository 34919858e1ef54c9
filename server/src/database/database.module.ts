import { type DynamicModule, Global, Module, type OnApplicationShutdown } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { DataSource } from 'typeorm';

import { Opening } from '../sealed/opening.js';
import { DamageService } from './damage.service.js';
import { dataSourceOptions } from './data-source.js';
import { StudioFolder } from './studio-folder.js';
import { WriteGate } from './write-gate.js';

/** The database of a claimed folder, and the gate through which it is written. */
@Global()
@Module({})
export class DatabaseModule implements OnApplicationShutdown {
  constructor(
    private readonly folder: StudioFolder,
    database: DataSource,
  ) {
    database.subscribers.push(new Opening(folder.sealer));
  }

  static on(folder: StudioFolder): DynamicModule {
    return {
      module: DatabaseModule,
      imports: [TypeOrmModule.forRoot({ ...dataSourceOptions(folder.database, 'read'), retryAttempts: 0 })],
      providers: [{ provide: StudioFolder, useValue: folder }, WriteGate, DamageService],
      exports: [StudioFolder, WriteGate, DamageService],
    };
  }

  onApplicationShutdown(): void {
    this.folder.release();
  }
}
