import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';

import { ClientEntity } from '../clients/client.entity.js';
import { ClientsModule } from '../clients/clients.module.js';
import { MovementsModule } from '../movements/movements.module.js';
import { SessionsModule } from '../sessions/sessions.module.js';
import { StudioEntity } from '../studio/studio.entity.js';
import { FeedController } from './feed.controller.js';
import { FeedService } from './feed.service.js';
import { OutboxController } from './outbox.controller.js';
import { OutboxService } from './outbox.service.js';
import { PlanEntity } from './plan.entity.js';
import { PlansController } from './plans.controller.js';
import { PlansService } from './plans.service.js';
import { SheetsService } from './sheets.service.js';

@Module({
  imports: [
    TypeOrmModule.forFeature([PlanEntity, ClientEntity, StudioEntity]),
    ClientsModule,
    MovementsModule,
    SessionsModule,
  ],
  controllers: [PlansController, OutboxController, FeedController],
  providers: [PlansService, SheetsService, OutboxService, FeedService],
})
export class PlansModule {}
