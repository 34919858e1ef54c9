/** What the starter library holds itself to, beyond the schema: depth of coaching content. A studio's own movements may be thinner. */
import { breaches, buildLadder, type StandardException, startsOnALoad } from '@waxwing/core/ladder';
import type { FaultKind, HouseRule, Movement } from '@waxwing/core/movement';

export interface Shortfall {
  /** Of `COACHING_RULES`, or one of the starter library alone. */
  rule: string;
  movementId: string;
  path: string;
  message: string;
}

/** What is not in the movements themselves. */
export interface Standards {
  rules: readonly HouseRule[];
  kinds: readonly FaultKind[];
  causes: readonly string[];
  exceptions: readonly StandardException[];
}

const LEAST = { cues: 5, faults: 4, corrections: 3, correctionKinds: 3, causes: 2 } as const;
/** A stretch is held and a joint is loosened: there is less to say and less to go wrong. */
const LEAST_GENTLE = { ...LEAST, cues: 3, faults: 2 } as const;
/** Whoever needs more has no standard. */
const MOST_EXCEPTIONS = 25;

/** Everything in which movements fall short, movements that are copies of others, and exceptions that except nothing. */
export function shortfalls(
  movements: readonly Movement[],
  { rules, kinds, causes, exceptions }: Standards,
): Shortfall[] {
  const byId = new Map(kinds.map((kind) => [kind.id, kind]));
  const all = [
    ...breaches(movements, ({ kind }) => byId.get(kind ?? '')),
    ...movements.flatMap(thinIn),
    ...ladderEnds(movements),
    ...idleRules(movements, rules),
    ...copies(movements),
    ...unknownCauses(movements, kinds, causes),
  ];
  const excepts = (one: StandardException) => (found: Shortfall) =>
    found.rule === one.rule && found.movementId === one.movement;
  const idle = exceptions
    .filter((one) => !all.some(excepts(one)))
    .map(({ rule, movement }) => ({ rule, movementId: movement, path: 'exceptions', message: 'needs no exception' }));
  const many = exceptions.length > MOST_EXCEPTIONS ? [exceptions.length] : [];
  return [
    ...all.filter((found) => !exceptions.some((one) => excepts(one)(found))),
    ...idle,
    ...many.map((count) => ({
      rule: 'exceptions',
      movementId: 'exceptions',
      path: '',
      message: `are ${count}, and may be ${MOST_EXCEPTIONS}`,
    })),
  ];
}

/** Causes are those of the vocabulary, and each of them is used. */
function unknownCauses(
  movements: readonly Movement[],
  kinds: readonly FaultKind[],
  causes: readonly string[],
): Shortfall[] {
  const known = new Set(causes);
  const used = new Set(movements.flatMap(({ faults }) => faults.flatMap((fault) => fault.causes)));
  const named = [
    ...movements.flatMap(({ id, faults }) =>
      faults.map((fault, i) => ({ movementId: id, path: `faults[${i}].causes`, causes: fault.causes })),
    ),
    ...kinds.map(({ id, causes: own }) => ({ movementId: 'fault-kinds', path: `${id}.causes`, causes: own })),
  ];
  const unknown = named.flatMap(({ movementId, path, causes: own }) =>
    own
      .filter((cause) => !known.has(cause))
      .map((cause) => ({ rule: 'cause', movementId, path, message: `"${cause}" is not one of the causes` })),
  );
  const idle = causes.filter((cause) => !used.has(cause));
  return [
    ...unknown,
    ...idle.map((path) => ({ rule: 'cause', movementId: 'causes', path, message: 'is the cause of nothing' })),
  ];
}

const isGentle = ({ role }: Movement): boolean => role === 'stretch' || role === 'mobility';

/** Everything that is trained has a step down or is its family's gentlest, and a step up or is a named end. */
function ladderEnds(movements: readonly Movement[]): Shortfall[] {
  const { rungs } = buildLadder(movements);
  const asks = ({ demands }: Movement) => Object.values(demands).reduce((sum, amount) => sum + amount, 0);
  const gentlest = new Map<string, number>();
  for (const movement of movements)
    for (const family of movement.families)
      gentlest.set(family, Math.min(gentlest.get(family) ?? Infinity, asks(movement)));
  return movements
    .filter((movement) => !isGentle(movement) && movement.progression === 'yes')
    .flatMap((movement) => {
      const { id: movementId, families, kit } = movement;
      const rung = rungs.get(movementId);
      const grows = rung?.harder.length || kit.some(({ needs }) => needs.length > 0);
      const eases =
        rung?.easier.length ||
        families.some((family) => asks(movement) === gentlest.get(family)) ||
        startsOnALoad(movement);
      return [
        ...(grows
          ? []
          : [{ rule: 'ladder', movementId, path: 'links', message: 'has no harder movement and no load' }]),
        ...(eases ? [] : [{ rule: 'ladder', movementId, path: 'links', message: 'has no easier movement' }]),
      ];
    });
}

/** A house rule that switches nothing is only talk: each of its options must own a cue or a fault somewhere. */
function idleRules(movements: readonly Movement[], rules: readonly HouseRule[]): Shortfall[] {
  const used = new Set(movements.flatMap(({ cues, faults }) => [...cues, ...faults].map((part) => part.houseRule)));
  return rules.flatMap(({ id, options }) =>
    options
      .filter((option) => !used.has(`${id}/${option.id}`))
      .map((option) => ({
        rule: 'house-rule',
        movementId: 'house-rules',
        path: `${id}/${option.id}`,
        message: 'switches nothing',
      })),
  );
}

function thinIn(movement: Movement): Shortfall[] {
  const found: Shortfall[] = [];
  const need = (path: string, have: number, least: number, what: string) => {
    if (have < least)
      found.push({ rule: 'depth', movementId: movement.id, path, message: `has ${have} ${what}, needs ${least}` });
  };
  const gentle = isGentle(movement);
  const least = gentle ? LEAST_GENTLE : LEAST;
  need('cues', movement.cues.length, least.cues, 'cues');
  need('cues', new Set(movement.cues.map((cue) => cue.phase)).size, 3, 'phases with a cue');
  if (!gentle)
    for (const focus of ['inward', 'outward', 'image'])
      need('cues', movement.cues.filter((cue) => cue.focus === focus).length, 1, `cues with ${focus} focus`);
  need('faults', movement.faults.length, least.faults, 'faults');
  movement.faults.forEach((fault, i) => {
    need(`faults[${i}].causes`, fault.causes.length, LEAST.causes, 'causes');
    need(`faults[${i}].corrections`, fault.corrections.length, LEAST.corrections, 'corrections');
    const kinds = new Set(fault.corrections.map((correction) => correction.kind));
    need(`faults[${i}].corrections`, kinds.size, LEAST.correctionKinds, 'kinds of correction');
    fault.causes.forEach((cause, j) => {
      const answers = fault.corrections.filter((correction) => correction.causes.includes(cause)).length;
      need(`faults[${i}].causes[${j}]`, answers, 1, `corrections for "${cause}"`);
    });
  });
  need('cautions', movement.cautions.length, 1, 'cautions');
  return found;
}

/** Share of its sentences that a movement may have in common with another before it is a copy of it. */
const COPIED = 0.6;

/** Movements that are copies: a good short cue may stand in many, but not most of what is said. */
function copies(movements: readonly Movement[]): Shortfall[] {
  const sentences = movements.map(
    ({ cues, faults }) =>
      new Set([
        ...cues.map(({ text }) => text),
        ...faults.flatMap((fault) => [
          fault.looksLike,
          ...fault.corrections.flatMap(({ say, do: act }) => [say ?? [], act ?? []].flat()),
        ]),
      ]),
  );
  return movements.flatMap((movement, i) => {
    const mine = [...(sentences[i] ?? [])];
    const twin = sentences.findIndex(
      (others, j) => j < i && mine.filter((sentence) => others.has(sentence)).length > COPIED * mine.length,
    );
    return twin < 0
      ? []
      : [{ rule: 'copy', movementId: movement.id, path: 'cues', message: `is a copy of ${movements[twin]?.id ?? ''}` }];
  });
}
