import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';

import { MovementsModule } from '../movements/movements.module.js';
import { ClientEntity } from './client.entity.js';
import { ClientFilesService } from './client-files.service.js';
import { ClientsController } from './clients.controller.js';
import { ClientsService } from './clients.service.js';
import { StillEntity } from './still.entity.js';
import { StillsController } from './stills.controller.js';
import { StillsService } from './stills.service.js';
import { VisitsService } from './visits.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([ClientEntity, StillEntity]), MovementsModule],
  controllers: [ClientsController, StillsController],
  providers: [ClientsService, ClientFilesService, StillsService, VisitsService],
  exports: [ClientsService],
})
export class ClientsModule {}
