/** The studio itself: name, trainer and kit; and the demo studio, which only an empty place may become. */
import { Injectable, OnModuleInit } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Keeping, Studio, StudioChange } from '@waxwing/core/client';
import type { Visitor } from '@waxwing/core/door';
import { Repository } from 'typeorm';

import { BackupsService } from '../backups/backups.service.js';
import { ClientsService } from '../clients/clients.service.js';
import { StartError } from '../config.js';
import { DamageService } from '../database/damage.service.js';
import { StudioFolder } from '../database/studio-folder.js';
import { WriteGate } from '../database/write-gate.js';
import { loadDemo } from '../demo/load.js';
import { AccessService } from '../door/access.service.js';
import { DoorService } from '../door/door.service.js';
import { HouseRulesService } from '../movements/house-rules.service.js';
import { LibraryService } from '../movements/library.service.js';
import { ProblemException, stale } from '../problems/problem.js';
import { DigestsService } from '../sessions/digests.service.js';
import { StudioEntity } from './studio.entity.js';

/** A studio whose trainer has not said what it is called or has. */
const UNNAMED: StudioEntity = {
  id: 1,
  version: 1,
  name: 'My studio',
  trainer: '',
  kit: [],
  space: 'lane',
  places: [],
  houseRules: {},
  looks: null,
  emergencyText: '',
  emergencyPhone: '',
};

@Injectable()
export class StudioService implements OnModuleInit {
  constructor(
    @InjectRepository(StudioEntity) private readonly repository: Repository<StudioEntity>,
    private readonly gate: WriteGate,
    private readonly folder: StudioFolder,
    private readonly backups: BackupsService,
    private readonly damage: DamageService,
    private readonly digests: DigestsService,
    private readonly clients: ClientsService,
    private readonly library: LibraryService,
    private readonly houseRules: HouseRulesService,
    private readonly door: DoorService,
    private readonly access: AccessService,
  ) {}

  async onModuleInit(): Promise<void> {
    if (!(await this.repository.existsBy({ id: 1 })))
      this.gate.write((writer) => writer.insert(StudioEntity, { ...UNNAMED }));
  }

  /** With as many clients as somebody sees. */
  readFor = async (visitor: Visitor): Promise<Studio> => ({
    ...(await this.read()),
    clients: await this.access.count(visitor),
  });

  async read(): Promise<Studio> {
    const { id: _, ...studio } = await this.repository.findOneByOrFail({ id: 1 });
    // A studio whose kit cannot be read is still a studio.
    const { kit = UNNAMED.kit, places = UNNAMED.places, houseRules = UNNAMED.houseRules } = studio;
    return { ...studio, kit, places, houseRules, clients: await this.clients.count(), movements: this.library.size };
  }

  /** How the data is kept: room on the disk, backups, and what is damaged. */
  keeping(): Keeping {
    return {
      ...this.folder.space(),
      backups: this.backups.list(),
      backupFailed: this.backups.failed,
      damaged: this.damage.list(),
    };
  }

  /** @throws 409 when the version is stale */
  async edit({ version, ...fields }: StudioChange) {
    if (fields.houseRules) this.houseRules.check(fields.houseRules);
    const written = this.gate.write((writer) =>
      writer.update(StudioEntity, { id: 1, version }, { ...fields, version: version + 1 }),
    );
    if (written !== 1) throw stale('studio', version, (await this.read()).version);
    return this.read();
  }

  /** Fills an empty place with the demo studio. @throws 409 when there are clients already */
  async becomeDemo(now: Date) {
    if ((await this.clients.count()) > 0)
      throw new ProblemException(409, 'There are clients here already; the demo studio is only for an empty place.');
    loadDemo(this.gate, this.library, now);
    this.digests.soon();
    return this.read();
  }

  /** The demo studio in a folder that is empty or holds it already. @throws StartError where somebody's own data lies; it is left as it is */
  async startAsDemo(now: Date): Promise<void> {
    if ((await this.clients.count()) > 0)
      throw new StartError(
        `There are clients in ${this.folder.path} already; the demo studio is only for an empty place. Nothing was changed.`,
      );
    await this.becomeDemo(now);
    await this.door.openAsDemo((await this.read()).trainer);
  }
}
