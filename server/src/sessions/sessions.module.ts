import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ClientsModule } from '../clients/clients.module.js';
import { MovementsModule } from '../movements/movements.module.js';
import { RecordService } from './record.service.js';
import { EventEntity, SessionEntity } from './session.entities.js';
import { SessionsController } from './sessions.controller.js';
import { SessionsService } from './sessions.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([SessionEntity, EventEntity]), ClientsModule, MovementsModule],
  controllers: [SessionsController],
  providers: [SessionsService, RecordService],
  exports: [RecordService],
})
export class SessionsModule {}
