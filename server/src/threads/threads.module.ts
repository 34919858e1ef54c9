import { Global, Module } from '@nestjs/common';

import { HeavyService } from './heavy.service.js';

@Global()
@Module({ providers: [HeavyService], exports: [HeavyService] })
export class ThreadsModule {}
