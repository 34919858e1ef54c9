import { Global, Module } from '@nestjs/common';

import { BackupsService } from './backups.service.js';
import { HoldsService } from './holds.service.js';

@Global()
@Module({ providers: [BackupsService, HoldsService], exports: [BackupsService] })
export class BackupsModule {}
