import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ClientsModule } from '../clients/clients.module.js';
import { MovementsModule } from '../movements/movements.module.js';
import { PlanEntity } from '../plans/plan.entity.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { RecordService } from './record.service.js';
import { EventEntity, SessionEntity } from './session.entities.js';
import { SessionsController } from './sessions.controller.js';
import { SessionsService } from './sessions.service.js';
import { SetsService } from './sets.service.js';

@Module({
  imports: [
    TypeOrmModule.forFeature([SessionEntity, EventEntity, PlanEntity, StudioEntity]),
    ClientsModule,
    MovementsModule,
  ],
  controllers: [SessionsController],
  providers: [SessionsService, RecordService, SetsService],
  exports: [RecordService],
})
export class SessionsModule {}
