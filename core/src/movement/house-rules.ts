/**
 * House rules: matters on which good trainers disagree, each with its options. The studio chooses, a client may have another choice,
 * and a cue or fault that belongs to an option shows only where that option holds. An option that asks for more than a limit allows
 * never holds for that client, whoever chose it.
 */
import { slug, text } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import type { Limit } from './limit-schema.js';
import { opennessFor } from './limits.js';
import { type Cue, demandsSchema, type Fault, type Movement } from './schema.js';

export const houseRuleSchema = z.strictObject({
  id: slug,
  matter: text(80),
  /** What every school keeps. */
  both: text(200),
  options: z
    .array(
      z.strictObject({
        id: slug,
        name: text(60),
        reason: text(200),
        /** What it asks for of itself, whatever the movement does. */
        asks: demandsSchema.optional(),
      }),
    )
    .min(2, 'needs at least two options')
    .refine((options) => new Set(options.map((o) => o.id)).size === options.length, 'has an option twice'),
});

export type HouseRule = z.infer<typeof houseRuleSchema>;

/** Rule id → option id. A rule that is not named keeps its first option. */
export type RuleChoices = Readonly<Record<string, string>>;

/**
 * The tags (`rule/option`) that hold: the client's choice, else the studio's, else the first option that the limits leave open. Unknown
 * options are passed over.
 * @param limits of the client, as they hold today
 */
export function tagsInForce(
  rules: readonly HouseRule[],
  studio: RuleChoices,
  client: RuleChoices = {},
  limits: readonly Limit[] = [],
): ReadonlySet<string> {
  return new Set(rules.map((rule) => `${rule.id}/${optionInForce(rule, studio, client, limits).id}`));
}

/** The option of one rule that holds. */
export function optionInForce(
  rule: HouseRule,
  studio: RuleChoices,
  client: RuleChoices = {},
  limits: readonly Limit[] = [],
): HouseRule['options'][0] {
  const named = (choices: RuleChoices) => rule.options.filter((option) => option.id === choices[rule.id]);
  const wished = [...named(client), ...named(studio), ...rule.options];
  const option = wished.find(({ asks = {} }) => opennessFor(asks, limits) !== 'closed') ?? rule.options[0];
  if (!option) throw new RangeError(`house rule "${rule.id}" has no options`);
  return option;
}

const holds = (tags: ReadonlySet<string>, { houseRule }: Cue | Fault): boolean =>
  houseRule === undefined || tags.has(houseRule);

/** A movement as the rules in force show it. What other schools say is left out, and so is every reference to it. */
export const underRules = (movement: Movement, tags: ReadonlySet<string>): Movement =>
  withParts(
    movement,
    (cue) => holds(tags, cue),
    (fault) => holds(tags, fault),
  );

/** A movement with some of its cues and faults, and without a reference to what is left out. */
export function withParts(
  movement: Movement,
  keepsCue: (cue: Cue) => boolean,
  keepsFault: (fault: Fault) => boolean = () => true,
): Movement {
  if (movement.cues.every(keepsCue) && movement.faults.every(keepsFault)) return movement;
  const cues = movement.cues.filter(keepsCue);
  const faults = movement.faults.filter(keepsFault);
  const cueIds = new Set(cues.map((cue) => cue.id));
  const faultIds = new Set(faults.map((fault) => fault.id));
  return {
    ...movement,
    cues: cues.map((cue) => ({ ...cue, addresses: cue.addresses.filter((id) => faultIds.has(id)) })),
    faults: faults.map((fault) => ({
      ...fault,
      corrections: fault.corrections.filter(({ cueId }) => cueId === undefined || cueIds.has(cueId)),
    })),
  };
}

/** What a movement's other schools would show: the cues and faults that the rules in force leave out. */
export const otherSchools = (movement: Movement, tags: ReadonlySet<string>): { cues: Cue[]; faults: Fault[] } => ({
  cues: movement.cues.filter((cue) => !holds(tags, cue)),
  faults: movement.faults.filter((fault) => !holds(tags, fault)),
});
