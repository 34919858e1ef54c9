import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';

import { ClientsModule } from '../clients/clients.module.js';
import { MovementsModule } from '../movements/movements.module.js';
import { DigestsService } from './digests.service.js';
import { EventsService } from './events.service.js';
import { LeftController } from './left.controller.js';
import { LeftService } from './left.service.js';
import { RecordService } from './record.service.js';
import { SessionEntity } from './session.entities.js';
import { SessionsController } from './sessions.controller.js';
import { SessionsService } from './sessions.service.js';
import { SetsService } from './sets.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([SessionEntity]), ClientsModule, MovementsModule],
  controllers: [SessionsController, LeftController],
  providers: [SessionsService, EventsService, DigestsService, LeftService, RecordService, SetsService],
  exports: [RecordService, SessionsService, DigestsService],
})
export class SessionsModule {}
