/** Lists come page by page; a cursor says where the page before ended. */
import { ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

import { invalid } from './problem.js';

/** What every list that comes page by page is asked with. */
export class PageQuery {
  @ApiPropertyOptional({ description: 'nextCursor of the page before' })
  @IsOptional()
  @IsString()
  @MaxLength(100)
  cursor?: string;

  @ApiPropertyOptional({ minimum: 1, maximum: 200, default: 50 })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(200)
  limit = 50;
}

export interface Page<T> {
  items: T[];
  nextCursor: string | null;
}

export const cursorOf = (...parts: readonly (string | number)[]): string => parts.join(',');

/** The parts of a cursor; null for the first page. @throws 422 for one that no page gave */
export function readCursor(cursor: string | undefined, parts: number): string[] | null {
  if (cursor === undefined || cursor === '') return null;
  const found = cursor.split(',');
  if (found.length !== parts) throw invalid([{ path: 'cursor', message: 'is not the nextCursor of a page' }]);
  return found;
}
