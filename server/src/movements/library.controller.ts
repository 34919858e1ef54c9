import { Controller, Get, Header, Param, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import { cardMarkdown, csvOf, packJsonSchema, packOf } from '@waxwing/core/formats';
import { underRules } from '@waxwing/core/movement';
import type { Response } from 'express';

import { ForEverybody, ForTrainers } from '../door/allowed.js';
import { notFound } from '../problems/problem.js';
import { FiguresService } from './figures.service.js';
import { HouseRulesService } from './house-rules.service.js';
import { LibraryService } from './library.service.js';
import { ChosenQuery } from './movements.dto.js';

@ApiTags('library')
@Controller()
export class LibraryController {
  constructor(
    private readonly library: LibraryService,
    private readonly houseRules: HouseRulesService,
    private readonly figures: FiguresService,
  ) {}

  @Get('library/texts')
  @ForEverybody()
  @ApiOperation({ summary: 'What is searched of every movement, for an index in the page' })
  texts() {
    return { items: this.library.searchTexts() };
  }

  @Get('library/health')
  @ForEverybody()
  @ApiOperation({ summary: 'Where the library is thin or wrong, worst first, and a score for each family' })
  health() {
    return this.library.health();
  }

  @Get('library/house-rules')
  @ForEverybody()
  @ApiOperation({ summary: 'Matters on which good trainers disagree, with their options' })
  rules() {
    return { items: this.houseRules.rules };
  }

  @Get('library/fault-kinds')
  @ForEverybody()
  @ApiOperation({ summary: 'What trainers see, whatever the movement, with the words in which they say it' })
  kinds() {
    return { items: this.library.faultKinds };
  }

  @Get('library/causes')
  @ForEverybody()
  @ApiOperation({ summary: 'Why faults come about, as `kind/detail`' })
  causes() {
    return { items: this.library.causes };
  }

  @Get('library/demands')
  @ForEverybody()
  @ApiOperation({ summary: 'What each level of a demand means, with movements that stand for it' })
  demands() {
    return { items: this.library.demandLevels };
  }

  @Get('library/conditions')
  @ForEverybody()
  @ApiOperation({ summary: 'Usual cautions by condition, as limits to propose' })
  conditions() {
    return { items: this.library.conditions };
  }

  @Get('library/figures')
  @ForEverybody()
  @Header('Content-Type', 'application/json; charset=utf-8')
  @ApiOperation({ summary: 'How movements are drawn: postures, and the figures that use them' })
  drawn() {
    return this.figures.text;
  }

  @Get('library/stills')
  @ForEverybody()
  @ApiOperation({ summary: 'Which movements have a picture, and which one of their start too' })
  stills() {
    const { ids, started } = this.figures.stills;
    return { items: ids, started };
  }

  @Get('library/stills/:movementId.svg')
  @ForEverybody()
  @Header('Content-Type', 'image/svg+xml; charset=utf-8')
  @Header('Cache-Control', 'private, max-age=3600')
  @ApiOperation({ summary: 'The telling posture of a movement as a picture' })
  still(@Param('movementId') movementId: string) {
    return this.picture(movementId, 'end');
  }

  @Get('library/stills/:movementId/start.svg')
  @ForEverybody()
  @Header('Content-Type', 'image/svg+xml; charset=utf-8')
  @Header('Cache-Control', 'private, max-age=3600')
  @ApiOperation({ summary: 'The start of a movement as a picture' })
  startStill(@Param('movementId') movementId: string) {
    return this.picture(movementId, 'start');
  }

  @Get('library/stills/:movementId/small.webp')
  @ForEverybody()
  @Header('Cache-Control', 'private, max-age=3600')
  @ApiOperation({ summary: 'The telling posture of a movement as a small picture, for a list' })
  async smallStill(@Param('movementId') movementId: string) {
    const picture = await this.figures.smallStill(movementId);
    if (!picture) throw notFound('figure', movementId);
    return new StreamableFile(picture, { type: 'image/webp' });
  }

  @Get('library/pack')
  @ForTrainers()
  @ApiOperation({ summary: 'The library, or the movements named in `ids`, as a pack' })
  pack(@Query() { ids }: ChosenQuery, @Res({ passthrough: true }) response: Response) {
    response.attachment('waxwing-library.json');
    return packOf(this.chosen(ids));
  }

  @Get('library/pages')
  @ForEverybody()
  @ApiOperation({ summary: 'The movements named in `ids` with their neighbours, those that are not here left out' })
  pages(@Query() { ids }: ChosenQuery) {
    const wanted = new Set(ids?.split(','));
    return { items: [...wanted].filter((id) => this.library.find(id)).map((id) => this.library.page(id)) };
  }

  @Get('library/movements.csv')
  @ForTrainers()
  @Header('Content-Type', 'text/csv; charset=utf-8')
  @ApiOperation({ summary: 'The list of movements as CSV' })
  csv(@Query() { ids }: ChosenQuery, @Res({ passthrough: true }) response: Response) {
    response.attachment('waxwing-movements.csv');
    return csvOf(this.chosen(ids));
  }

  @Get('movements/:id/card.md')
  @ForEverybody()
  @Header('Content-Type', 'text/markdown; charset=utf-8')
  @ApiOperation({ summary: 'One movement on one page, as Markdown, in the words of this studio' })
  async card(@Param('id') id: string) {
    const page = this.library.page(id);
    return cardMarkdown(underRules(page.movement, await this.houseRules.inForce()), page);
  }

  @Get('schema/pack')
  @ForEverybody()
  @ApiOperation({ summary: 'The JSON Schema of a library pack' })
  schema() {
    return packJsonSchema();
  }

  /** All movements, or those named; @throws 404 for one that is not here */
  private chosen(ids: string | undefined) {
    if (!ids) return this.library.active();
    return ids.split(',').map((id) => {
      const movement = this.library.find(id);
      if (!movement) throw notFound('movement', id);
      return movement;
    });
  }

  private picture(movementId: string, which: 'start' | 'end'): string {
    const still = this.figures.stills.of(movementId, which);
    if (still === undefined) throw notFound('figure', movementId);
    return still;
  }
}
