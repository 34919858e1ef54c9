import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { MovementsModule } from '../movements/movements.module.js';
import { ClientEntity } from './client.entity.js';
import { ClientFilesService } from './client-files.service.js';
import { ClientsController } from './clients.controller.js';
import { ClientsService } from './clients.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([ClientEntity]), MovementsModule],
  controllers: [ClientsController],
  providers: [ClientsService, ClientFilesService],
  exports: [ClientsService],
})
export class ClientsModule {}
