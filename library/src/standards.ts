/** What the starter library holds itself to, beyond the schema: depth of coaching content. A studio's own movements may be thinner. */
import { buildLadder } from '@waxwing/core/ladder';
import type { FaultKind, HouseRule, Movement } from '@waxwing/core/movement';

export interface Shortfall {
  movementId: string;
  path: string;
  message: string;
}

const LEAST = { cues: 5, faults: 3, corrections: 3, correctionKinds: 3, causes: 2 } as const;
/** A stretch is held and a joint is loosened: there is less to say and less to go wrong. */
const LEAST_GENTLE = { ...LEAST, cues: 3, faults: 1 } as const;

/** Everything in which movements fall short, and sentences that stand in more than one movement. */
export function shortfalls(
  movements: readonly Movement[],
  rules: readonly HouseRule[],
  kinds: readonly FaultKind[],
  causes: readonly string[],
): Shortfall[] {
  return [
    ...movements.flatMap(thinIn),
    ...offLadder(movements),
    ...idleRules(movements, rules),
    ...pastedSentences(movements),
    ...unknownKinds(movements, kinds),
    ...unknownCauses(movements, causes),
  ];
}

/** A kind that is named must be one of the vocabulary. */
function unknownKinds(movements: readonly Movement[], kinds: readonly FaultKind[]): Shortfall[] {
  const known = new Set(kinds.map(({ id }) => id));
  return movements.flatMap(({ id: movementId, faults }) =>
    faults.flatMap(({ kind }, i) =>
      kind === undefined || known.has(kind)
        ? []
        : [{ movementId, path: `faults[${i}].kind`, message: `"${kind}" is no fault kind` }],
    ),
  );
}

/** Causes are those of the vocabulary, and each of them is used. */
function unknownCauses(movements: readonly Movement[], causes: readonly string[]): Shortfall[] {
  const known = new Set(causes);
  const used = new Set(movements.flatMap(({ faults }) => faults.flatMap((fault) => fault.causes)));
  const unknown = movements.flatMap(({ id: movementId, faults }) =>
    faults.flatMap((fault, i) =>
      fault.causes
        .filter((cause) => !known.has(cause))
        .map((cause) => ({ movementId, path: `faults[${i}].causes`, message: `"${cause}" is not one of the causes` })),
    ),
  );
  const idle = causes.filter((cause) => !used.has(cause));
  return [...unknown, ...idle.map((path) => ({ movementId: 'causes', path, message: 'is the cause of nothing' }))];
}

const isGentle = ({ role }: Movement): boolean => role === 'stretch' || role === 'mobility';

/** Everything that is trained has a step down or a step up. */
function offLadder(movements: readonly Movement[]): Shortfall[] {
  const { rungs } = buildLadder(movements);
  return movements
    .filter((movement) => !isGentle(movement))
    .filter(({ id }) => !rungs.get(id)?.easier.length && !rungs.get(id)?.harder.length)
    .map(({ id }) => ({ movementId: id, path: 'links', message: 'has no easier and no harder movement' }));
}

/** A house rule that switches nothing is only talk: each of its options must own a cue or a fault somewhere. */
function idleRules(movements: readonly Movement[], rules: readonly HouseRule[]): Shortfall[] {
  const used = new Set(movements.flatMap(({ cues, faults }) => [...cues, ...faults].map((part) => part.houseRule)));
  return rules.flatMap(({ id, options }) =>
    options
      .filter((option) => !used.has(`${id}/${option.id}`))
      .map((option) => ({ movementId: 'house-rules', path: `${id}/${option.id}`, message: 'switches nothing' })),
  );
}

function thinIn(movement: Movement): Shortfall[] {
  const found: Shortfall[] = [];
  const need = (path: string, have: number, least: number, what: string) => {
    if (have < least) found.push({ movementId: movement.id, path, message: `has ${have} ${what}, needs ${least}` });
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

function pastedSentences(movements: readonly Movement[]): Shortfall[] {
  const first = new Map<string, string>();
  const found: Shortfall[] = [];
  const visit = (movementId: string, path: string, text: string) => {
    const key = text.toLowerCase().replace(/[^a-z ]/g, '');
    const owner = first.get(key);
    if (owner !== undefined && owner !== movementId)
      found.push({ movementId, path, message: `says the same as ${owner}: "${text}"` });
    first.set(key, owner ?? movementId);
  };
  for (const movement of movements) {
    movement.cues.forEach((cue, i) => visit(movement.id, `cues[${i}].text`, cue.text));
    movement.cautions.forEach((text, i) => visit(movement.id, `cautions[${i}]`, text));
    movement.faults.forEach((fault, i) => {
      visit(movement.id, `faults[${i}].looksLike`, fault.looksLike);
      fault.corrections.forEach((c, j) => {
        if (c.say !== undefined) visit(movement.id, `faults[${i}].corrections[${j}].say`, c.say);
        if (c.do !== undefined) visit(movement.id, `faults[${i}].corrections[${j}].do`, c.do);
      });
    });
  }
  return found;
}
