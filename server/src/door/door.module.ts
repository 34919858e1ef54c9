import { Global, Module } from '@nestjs/common';
import { APP_GUARD, APP_INTERCEPTOR } from '@nestjs/core';

import { NetworkController } from '../network/network.controller.js';
import { NetworkService } from '../network/network.service.js';
import { AccessService } from './access.service.js';
import { AccountsController } from './accounts.controller.js';
import { AccountsService } from './accounts.service.js';
import { Attempts } from './attempts.js';
import { AuditController } from './audit.controller.js';
import { AuditInterceptor } from './audit.interceptor.js';
import { AuditService } from './audit.service.js';
import { DevicesService } from './devices.service.js';
import { DoorController } from './door.controller.js';
import { DoorGuard } from './door.guard.js';
import { DoorService } from './door.service.js';
import { HealthController } from './health.controller.js';
import { PairingService } from './pairing.service.js';
import { RecoveryService } from './recovery.service.js';
import { TrainersService } from './trainers.service.js';

@Global()
@Module({
  controllers: [DoorController, AccountsController, AuditController, HealthController, NetworkController],
  providers: [
    AccessService,
    AccountsService,
    Attempts,
    AuditService,
    DevicesService,
    DoorService,
    NetworkService,
    PairingService,
    RecoveryService,
    TrainersService,
    { provide: APP_GUARD, useClass: DoorGuard },
    { provide: APP_INTERCEPTOR, useClass: AuditInterceptor },
  ],
  exports: [AccessService, AccountsService, AuditService, DoorService, NetworkService],
})
export class DoorModule {}
