import { Module } from '@nestjs/common';

import { MovementsModule } from '../movements/movements.module.js';
import { ImportsController } from './imports.controller.js';
import { ImportsService } from './imports.service.js';

@Module({ imports: [MovementsModule], controllers: [ImportsController], providers: [ImportsService] })
export class ImportsModule {}
