import { Global, Module } from '@nestjs/common';

import { BackupsService } from './backups.service.js';

@Global()
@Module({ providers: [BackupsService], exports: [BackupsService] })
export class BackupsModule {}
