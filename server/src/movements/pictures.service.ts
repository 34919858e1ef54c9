/** Pictures of a movement: up to six, kept as files beside the database under names of our own, told apart by what is in them. */
import { Inject, Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Picture } from '@waxwing/core/formats';
import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Repository } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { CONFIG, type Config } from '../config.js';
import { invalid, notFound } from '../problems/problem.js';
import { LibraryService } from './library.service.js';
import { PictureEntity } from './picture.entity.js';

export const MOST_PICTURES = 6;
export const MOST_BYTES = 5 * 1024 * 1024;

/** The first bytes of each kind of picture that is taken. */
const KINDS: readonly { type: string; starts: (bytes: Buffer) => boolean }[] = [
  { type: 'image/png', starts: (b) => b.subarray(0, 8).equals(Buffer.from([137, 80, 78, 71, 13, 10, 26, 10])) },
  { type: 'image/jpeg', starts: (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff },
  {
    type: 'image/webp',
    starts: (b) => b.toString('latin1', 0, 4) === 'RIFF' && b.toString('latin1', 8, 12) === 'WEBP',
  },
];

const refuse = (message: string) => invalid([{ path: 'file', message }]);

@Injectable()
export class PicturesService {
  constructor(
    @InjectRepository(PictureEntity) private readonly repository: Repository<PictureEntity>,
    private readonly library: LibraryService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async list(movementId: string): Promise<Picture[]> {
    const pictures = await this.repository.find({ where: { movementId }, order: { addedAt: 'ASC', id: 'ASC' } });
    return pictures.map(({ id, caption, addedAt }) => ({ id, caption, addedAt }));
  }

  /** @throws 404, 422 for something else than a picture, one too large or one too many */
  async add(movementId: string, bytes: Buffer, caption: string): Promise<Picture[]> {
    if (!this.library.find(movementId)) throw notFound('movement', movementId);
    if (bytes.length === 0) throw refuse('is empty');
    if (bytes.length > MOST_BYTES) throw refuse('must be at most 5 MB');
    if (caption.length > 120) throw invalid([{ path: 'caption', message: 'must be at most 120 characters' }]);
    const kind = KINDS.find(({ starts }) => starts(bytes));
    if (!kind) throw refuse('is not a PNG, JPEG or WebP picture, whatever its name says');
    if ((await this.repository.countBy({ movementId })) >= MOST_PICTURES)
      throw refuse(`is one too many: a movement has at most ${MOST_PICTURES} pictures`);
    const id = uuidv7();
    await mkdir(this.folder, { recursive: true });
    await writeFile(this.file(id), bytes);
    const addedAt = new Date().toISOString();
    await this.repository.insert({ id, movementId, type: kind.type, bytes: bytes.length, caption, addedAt });
    return this.list(movementId);
  }

  /** @throws 404 */
  async read(movementId: string, id: string): Promise<{ type: string; bytes: Buffer }> {
    const { type } = await this.row(movementId, id);
    return { type, bytes: await readFile(this.file(id)) };
  }

  /** @throws 404 */
  async remove(movementId: string, id: string): Promise<Picture[]> {
    await this.row(movementId, id);
    await this.repository.delete({ id });
    await rm(this.file(id), { force: true });
    return this.list(movementId);
  }

  private get folder(): string {
    return join(this.config.dataFolder, 'pictures');
  }

  /** Only ever called with an id of our own making. */
  private file(id: string): string {
    return join(this.folder, id);
  }

  private async row(movementId: string, id: string): Promise<PictureEntity> {
    const picture = await this.repository.findOneBy({ id, movementId });
    if (!picture) throw notFound('picture', id);
    return picture;
  }
}
