/**
 * Movements as earlier versions wrote them, in today's shape: options of kit were bare lists of needs, a correction had one text for
 * trainer and client alike, causes had names of their own, and the pause of a tempo stood in one place. What is of today stays as it is. Nothing is judged here: the schema does that afterwards.
 */
import { canonical } from './difference.js';
import { causesToday } from './former-causes.js';
import { tempoToday } from './former-tempo.js';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type Fields = { [key: string]: Json };

const isFields = (value: Json | undefined): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const mapList = (value: Json | undefined, change: (one: Json) => Json): Json | undefined =>
  Array.isArray(value) ? value.map(change) : value;

/** Words that tell the trainer to do something, where they stand first in what was to be said. */
const FOR_THE_TRAINER = /^(ask|name|remind|say|tell|listen|watch|count|before|let|use|give|repeat|call)\b/i;

const withCauses = (one: Fields): Fields => {
  const { causes } = one;
  return Array.isArray(causes) && causes.every((cause) => typeof cause === 'string')
    ? { ...one, causes: causesToday(causes) }
    : one;
};

function correction(one: Json): Json {
  if (!isFields(one)) return one;
  const { text, ...rest } = withCauses(one);
  if (text === undefined) return rest;
  // Beside a cue, which is what is said, the text was a hint.
  const spoken =
    one.kind === 'say' && one.cueId === undefined && !(typeof text === 'string' && FOR_THE_TRAINER.test(text));
  return { ...rest, [spoken ? 'say' : 'do']: text };
}

const fault = (one: Json): Json => {
  if (!isFields(one)) return one;
  const corrections = mapList(one.corrections, correction);
  return { ...withCauses(one), ...(corrections === undefined ? {} : { corrections }) };
};

/** What is done on the feet says so: who cannot stand is limited by that. */
function demandsOf({ demands, position }: Fields): Json | undefined {
  if (position !== 'standing' || (demands !== undefined && !isFields(demands))) return demands;
  return { standing: 1, ...demands };
}

const amountOf = (demands: Fields, demand: string): number => {
  const amount = demands[demand];
  return typeof amount === 'number' ? amount : 0;
};

/**
 * What was not asked for before, worked out to the safe side: as much as the demand that covered it until now. What a movement says itself
 * stays as it is.
 */
function demandsToday({ demands, role }: Fields): Json | undefined {
  if (!isFields(demands)) return demands;
  const asked = (...names: string[]) => Math.max(...names.map((name) => amountOf(demands, name)));
  const worked: Record<string, number> = {
    'loaded-hinge': asked('loaded-spine-bend'),
    'hip-bend': asked('deep-knee-bend', 'spine-bend'),
    'belly-strain': asked('long-lever-trunk', 'loaded-spine-bend'),
    kneeling: asked('weight-on-knees'),
    'hard-effort': Math.max(role === 'conditioning' || role === 'power' ? 2 : 0, asked('impact')),
    transfer: asked('floor-to-standing', 'lying-on-back', 'lying-face-down') > 0 ? 3 : 0,
  };
  const missing = Object.entries(worked).filter(([demand, amount]) => amount > 0 && demands[demand] === undefined);
  return missing.length === 0 ? demands : { ...demands, ...Object.fromEntries(missing) };
}

function doseToday({ id, phases, dose }: Fields): Json | undefined {
  if (!isFields(dose) || typeof dose.tempo !== 'string' || typeof id !== 'string' || !Array.isArray(phases))
    return dose;
  return { ...dose, tempo: tempoToday(dose.tempo, { id, phases: phases.map(String) }) };
}

/**
 * A movement of any earlier version in today's shape; anything else comes back as it is.
 * @param from the version of the pack that it is in, or what it was written with
 */
export function upgradeMovement(input: unknown, from: 1 | 2 | 3 | 4): unknown {
  const movement = input as Json;
  if (!isFields(movement)) return input;
  const kit = mapList(movement.kit, (option) => (Array.isArray(option) ? { needs: option } : option));
  const faults = mapList(movement.faults, fault);
  // Since the second version the demand is known: where it is missing, it was left out on purpose.
  const standing = from === 1 ? demandsOf(movement) : movement.demands;
  const dose = doseToday(movement);
  const asked = { ...movement, ...(standing === undefined ? {} : { demands: standing }) };
  const demands = from < 4 ? demandsToday(asked) : asked.demands;
  return {
    ...movement,
    ...(demands === undefined ? {} : { demands }),
    ...(dose === undefined ? {} : { dose }),
    ...(kit === undefined ? {} : { kit }),
    ...(faults === undefined ? {} : { faults }),
  };
}

/** What of a movement was worked out when it was brought up to date, in words, to be looked over; nothing where it was of today already. */
export function workedOut(before: unknown, after: unknown): string[] {
  const [old, today] = [before as Json, after as Json];
  if (!isFields(old) || !isFields(today)) return [];
  const corrections = (one: Fields) => partsOf(one.faults).flatMap((part) => partsOf(part.corrections));
  const causes = (one: Fields) => partsOf(one.faults).map((part) => part.causes ?? null);
  const differ = (a: Json | undefined, b: Json | undefined) => canonical(a ?? null) !== canonical(b ?? null);
  return [
    ...(differ(old.demands, today.demands) ? ['what it asks of hips, belly, knees and pulse'] : []),
    ...(differ(causes(old), causes(today)) ? ["today's names of causes"] : []),
    ...(differ(old.dose, today.dose) ? ['where the pause of its tempo is'] : []),
    ...(corrections(old).some(({ text }) => text !== undefined) ? ['who each correction is for'] : []),
  ];
}

const partsOf = (value: Json | undefined): Fields[] => (Array.isArray(value) ? value.filter(isFields) : []);
