import { Global, Module } from '@nestjs/common';

import { PreparingService } from './preparing.service.js';

@Global()
@Module({ providers: [PreparingService], exports: [PreparingService] })
export class PreparingModule {}
