/** The house rules, read once, and whether somebody's choices among them exist. */
import { Inject, Injectable } from '@nestjs/common';
import { type HouseRule, type RuleChoices, tagsInForce } from '@waxwing/core/movement';
import type { Problem } from '@waxwing/core/schema';
import { loadRules } from '@waxwing/library';
import { DataSource } from 'typeorm';

import { CONFIG, type Config } from '../config.js';
import { invalid } from '../problems/problem.js';
import { StudioEntity } from '../studio/studio.entity.js';

@Injectable()
export class HouseRulesService {
  readonly rules: readonly HouseRule[];

  constructor(
    @Inject(CONFIG) config: Config,
    private readonly database: DataSource,
  ) {
    this.rules = loadRules(config.houseRules);
  }

  /** The tags that hold in this studio. */
  async inForce(): Promise<ReadonlySet<string>> {
    const studio = await this.database.getRepository(StudioEntity).findOneBy({ id: 1 });
    return tagsInForce(this.rules, studio?.houseRules ?? {});
  }

  /** @throws 422 naming the rule that does not exist or has no such option */
  check(choices: RuleChoices): void {
    const problems = Object.entries(choices).flatMap(([id, option]): Problem[] => {
      const rule = this.rules.find((one) => one.id === id);
      if (!rule) return [{ path: `houseRules.${id}`, message: 'is not a house rule' }];
      return rule.options.some((one) => one.id === option)
        ? []
        : [{ path: `houseRules.${id}`, message: `has no option "${option}"` }];
    });
    if (problems.length > 0) throw invalid(problems);
  }
}
