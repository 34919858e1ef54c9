import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';

import { FiguresService } from './figures.service.js';
import { HouseRulesService } from './house-rules.service.js';
import { LibraryController } from './library.controller.js';
import { LibraryService } from './library.service.js';
import { MovementEntity } from './movement.entity.js';
import { MovementsController } from './movements.controller.js';
import { PictureEntity } from './picture.entity.js';
import { PicturesController } from './pictures.controller.js';
import { PicturesService } from './pictures.service.js';

@Module({
  imports: [TypeOrmModule.forFeature([MovementEntity, PictureEntity])],
  controllers: [LibraryController, MovementsController, PicturesController],
  providers: [LibraryService, PicturesService, HouseRulesService, FiguresService],
  exports: [LibraryService, HouseRulesService, FiguresService],
})
export class MovementsModule {}
