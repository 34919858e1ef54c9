/** Pictures of a movement: up to six, kept as files beside the database under names of our own, drawn anew from their points. */
import { readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Picture } from '@waxwing/core/movement';
import { wrongInLine } from '@waxwing/core/schema';
import { Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';

import { StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import { invalid, notFound } from '../problems/problem.js';
import { LibraryService } from './library.service.js';
import { PictureEntity } from './picture.entity.js';
import { redrawn } from './redrawn.js';

export const MOST_PICTURES = 6;
export const MOST_BYTES = 5 * 1024 * 1024;

const refuse = (message: string) => invalid([{ path: 'file', message }]);

@Injectable()
export class PicturesService implements OnApplicationBootstrap {
  constructor(
    @InjectRepository(PictureEntity) private readonly repository: Repository<PictureEntity>,
    private readonly library: LibraryService,
    private readonly gate: WriteGate,
    private readonly folder: StudioFolder,
  ) {}

  /** What a killed server left: files of pictures that were never taken in, or are gone. */
  async onApplicationBootstrap(): Promise<void> {
    const known = new Set((await this.repository.find({ select: { id: true } })).map(({ id }) => id));
    for (const name of await readdir(this.folder.pictures))
      if (!known.has(name)) await rm(join(this.folder.pictures, name), { force: true });
  }

  /** @throws 404 */
  async list(movementId: string): Promise<Picture[]> {
    if (!this.library.find(movementId)) throw notFound('movement', movementId);
    const pictures = await this.repository.find({ where: { movementId }, order: { addedAt: 'ASC', id: 'ASC' } });
    return pictures.map(({ id, caption, addedAt }) => ({ id, caption, addedAt }));
  }

  /** @throws 404, 422 for something else than a picture, one too large or one too many */
  async add(movementId: string, bytes: Buffer, caption: string): Promise<Picture[]> {
    if (!this.library.find(movementId)) throw notFound('movement', movementId);
    if (bytes.length === 0) throw refuse('is empty');
    if (bytes.length > MOST_BYTES) throw refuse('must be at most 5 MB');
    if (caption.length > 120) throw invalid([{ path: 'caption', message: 'must be at most 120 characters' }]);
    const wrong = wrongInLine(caption);
    if (wrong) throw invalid([{ path: 'caption', message: wrong }]);
    const picture = await redrawn(bytes);
    if (!picture) throw refuse('is not a PNG, JPEG or WebP picture, whatever its name says');
    const id = uuidv7();
    const addedAt = new Date().toISOString();
    const row = { id, movementId, type: picture.type, bytes: picture.bytes.length, caption, addedAt };
    try {
      // The file first: a row whose picture is not there would be a lie.
      await writeFile(this.file(id), picture.bytes, { mode: 0o600, flush: true });
      this.gate.write((writer) => {
        const [known] = writer.all<{ n: number }>(
          'SELECT count(*) AS n FROM pictures WHERE movementId = ?',
          movementId,
        );
        if ((known?.n ?? 0) >= MOST_PICTURES)
          throw refuse(`is one too many: a movement has at most ${MOST_PICTURES} pictures`);
        writer.insert(PictureEntity, row);
      });
    } catch (error) {
      await rm(this.file(id), { force: true });
      throw error;
    }
    return this.list(movementId);
  }

  /** @throws 404 */
  async read(movementId: string, id: string): Promise<{ type: string; bytes: Buffer }> {
    const { type } = await this.row(movementId, id);
    const bytes = await readFile(this.file(id)).catch(() => null);
    if (!bytes) throw notFound('picture', id);
    return { type, bytes };
  }

  /** @throws 404 */
  async remove(movementId: string, id: string): Promise<Picture[]> {
    await this.row(movementId, id);
    this.gate.write((writer) => writer.remove(PictureEntity, { id }));
    await rm(this.file(id), { force: true });
    return this.list(movementId);
  }

  /** Only ever called with an id of our own making. */
  private file(id: string): string {
    return join(this.folder.pictures, id);
  }

  private async row(movementId: string, id: string): Promise<PictureEntity> {
    const picture = await this.repository.findOneBy({ id, movementId });
    if (!picture) throw notFound('picture', id);
    return picture;
  }
}
