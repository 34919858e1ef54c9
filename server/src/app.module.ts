import { DynamicModule, Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ClientsModule } from './clients/clients.module.js';
import { CONFIG, type Config } from './config.js';
import { dataSourceOptions } from './database/data-source.js';
import { ImportsModule } from './imports/imports.module.js';
import { MovementsModule } from './movements/movements.module.js';
import { PlansModule } from './plans/plans.module.js';
import { SessionsModule } from './sessions/sessions.module.js';
import { StudioModule } from './studio/studio.module.js';

@Global()
@Module({})
class ConfigModule {
  static of(config: Config): DynamicModule {
    const providers = [{ provide: CONFIG, useValue: config }];
    return { module: ConfigModule, providers, exports: [CONFIG] };
  }
}

@Module({})
export class AppModule {
  static on(config: Config): DynamicModule {
    return {
      module: AppModule,
      imports: [
        ConfigModule.of(config),
        TypeOrmModule.forRoot({ ...dataSourceOptions(config.database), retryAttempts: 0 }),
        MovementsModule,
        ImportsModule,
        ClientsModule,
        SessionsModule,
        PlansModule,
        StudioModule,
      ],
    };
  }
}
