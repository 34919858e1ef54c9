import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';

import { ClientsModule } from '../clients/clients.module.js';
import { MovementsModule } from '../movements/movements.module.js';
import { SessionsModule } from '../sessions/sessions.module.js';
import { StudioController } from './studio.controller.js';
import { StudioEntity } from './studio.entity.js';
import { StudioService } from './studio.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([StudioEntity]), ClientsModule, MovementsModule, SessionsModule],
  controllers: [StudioController],
  providers: [StudioService],
})
export class StudioModule {}
