/** The studio itself: name, trainer and kit; and the demo studio, which only an empty place may become. */
import { Injectable, OnModuleInit } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Studio } from '@waxwing/core/formats';
import { DataSource, Repository } from 'typeorm';
import { ClientsService } from '../clients/clients.service.js';
import { loadDemo } from '../demo/load.js';
import { HouseRulesService } from '../movements/house-rules.service.js';
import { LibraryService } from '../movements/library.service.js';
import { ProblemException, stale } from '../problems/problem.js';
import type { EditStudioDto } from './studio.dto.js';
import { StudioEntity } from './studio.entity.js';

/** A studio whose trainer has not said what it is called or has. */
const UNNAMED: StudioEntity = {
  id: 1,
  version: 1,
  name: 'My studio',
  trainer: '',
  kit: [],
  houseRules: {},
  emergencyText: '',
  emergencyPhone: '',
};

@Injectable()
export class StudioService implements OnModuleInit {
  constructor(
    @InjectRepository(StudioEntity) private readonly repository: Repository<StudioEntity>,
    private readonly database: DataSource,
    private readonly clients: ClientsService,
    private readonly library: LibraryService,
    private readonly houseRules: HouseRulesService,
  ) {}

  async onModuleInit(): Promise<void> {
    if (!(await this.repository.existsBy({ id: 1 }))) await this.repository.insert({ ...UNNAMED });
  }

  async read(): Promise<Studio> {
    const { id: _, ...studio } = await this.repository.findOneByOrFail({ id: 1 });
    return { ...studio, clients: await this.clients.count(), movements: this.library.size };
  }

  /** @throws 409 when the version is stale */
  async edit({ version, ...fields }: EditStudioDto) {
    if (fields.houseRules) this.houseRules.check(fields.houseRules);
    const result = await this.repository.update({ id: 1, version }, { ...fields, version: version + 1 });
    if (result.affected !== 1) throw stale('studio', version, (await this.read()).version);
    return this.read();
  }

  /** Fills an empty place with the demo studio. @throws 409 when there are clients already */
  async becomeDemo(now: Date) {
    if ((await this.clients.count()) > 0)
      throw new ProblemException(409, 'There are clients here already; the demo studio is only for an empty place.');
    await loadDemo(this.database, this.library.find, now);
    return this.read();
  }
}
