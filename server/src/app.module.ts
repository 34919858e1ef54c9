import { DynamicModule, Global, Module } from '@nestjs/common';

import { BackupsModule } from './backups/backups.module.js';
import { ClientsModule } from './clients/clients.module.js';
import { CONFIG, type Config } from './config.js';
import { DatabaseModule } from './database/database.module.js';
import type { StudioFolder } from './database/studio-folder.js';
import { DoorModule } from './door/door.module.js';
import { ErasedController } from './erased/erased.controller.js';
import { ImportsModule } from './imports/imports.module.js';
import { PreparingModule } from './imports/preparing.module.js';
import { MovementsModule } from './movements/movements.module.js';
import { PlansModule } from './plans/plans.module.js';
import { SessionsModule } from './sessions/sessions.module.js';
import { StudioModule } from './studio/studio.module.js';
import { ThreadsModule } from './threads/threads.module.js';

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
  static on(config: Config, folder: StudioFolder): DynamicModule {
    return {
      module: AppModule,
      imports: [
        ConfigModule.of(config),
        DatabaseModule.on(folder),
        DoorModule,
        BackupsModule,
        PreparingModule,
        ThreadsModule,
        MovementsModule,
        ImportsModule,
        ClientsModule,
        SessionsModule,
        PlansModule,
        StudioModule,
      ],
      controllers: [ErasedController],
    };
  }
}
