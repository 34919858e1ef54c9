/** Random whole movements, lawful by the schema, for laws about documents. */
import fc from 'fast-check';

import { checkMovement, type Movement } from '../movement/index.js';
import {
  CHANNELS,
  DEMANDS,
  FOCUSES,
  KIT_ITEMS,
  MUSCLES,
  PATTERNS,
  PLANES,
  POSITIONS,
  PROGRESSIONS,
  ROLES,
  SET_UPS,
  SEVERITIES,
  SIDES,
  SPACES,
} from '../movement/vocabulary.js';

/** Words with everything that breaks naive writers: quotes, commas, umlauts, pipes, a leading sign. */
const words = fc
  .array(fc.constantFrom('knee', 'über', 'a "quote"', 'one, two', '=sum', '| pipe', 'line', '#1', "it's", '2 × 8'), {
    minLength: 1,
    maxLength: 4,
  })
  .map((parts) => parts.join(' '));

const some = <T>(values: readonly T[], least = 0) =>
  fc.uniqueArray(fc.constantFrom(...values), { minLength: least, maxLength: 3 });

const cue = (id: string) =>
  fc.record({
    id: fc.constant(id),
    phase: fc.constantFrom('lower', 'rise'),
    text: words,
    focus: fc.constantFrom(...FOCUSES),
    channel: fc.constantFrom(...CHANNELS),
    addresses: fc.constant([]),
  });

const fault = (id: string) =>
  fc.record({
    id: fc.constant(id),
    name: words,
    looksLike: words,
    phase: fc.constantFrom('lower', 'rise'),
    severity: fc.constantFrom(...SEVERITIES),
    views: fc.record({
      front: fc.constantFrom(0.2, 0.9),
      side: fc.constantFrom(0, 0.6),
      back: fc.constant(0),
      oblique: fc.constant(0),
    }),
    causes: fc.constant(['load/too-heavy']),
    corrections: words.map((say) => [{ id: 'say-it', kind: 'say', say, causes: [] }]),
  });

/** A movement with this id that keeps the schema. */
export const lawfulMovement = (id: string): fc.Arbitrary<Movement> =>
  fc
    .record({
      id: fc.constant(id),
      name: words,
      // A list in a cell is split at plus signs and commas, so an alias has none.
      aliases: fc.uniqueArray(fc.constantFrom('back lunge', 'über step', "carter's row"), { maxLength: 2 }),
      families: fc.constantFrom(['squat'], ['lunge', 'row']),
      pattern: fc.constantFrom(...PATTERNS),
      role: fc.constantFrom(...ROLES),
      position: fc.constantFrom(...POSITIONS),
      sides: fc.constantFrom(...SIDES),
      planes: some(PLANES, 1),
      muscles: fc.record({ prime: some(MUSCLES, 1), assist: some(MUSCLES) }),
      kit: fc.array(
        fc.record(
          {
            needs: fc.array(fc.record({ item: fc.constantFrom(...KIT_ITEMS), count: fc.integer({ min: 1, max: 3 }) }), {
              maxLength: 2,
            }),
            demands: fc.dictionary(fc.constantFrom<string>(...DEMANDS), fc.integer({ min: 0, max: 3 }), { maxKeys: 2 }),
            mostKg: fc.constantFrom(12, 20.5),
          },
          { requiredKeys: ['needs'] },
        ),
        { maxLength: 3 },
      ),
      space: fc.constantFrom(...SPACES),
      demands: fc.dictionary(fc.constantFrom<string>(...DEMANDS), fc.integer({ min: 1, max: 3 }), { maxKeys: 3 }),
      dose: fc.constant({
        mode: 'reps',
        tempo: '2-0-1-0',
        windows: { learn: { low: 6, high: 8, sets: [2, 3], rest: 60 } },
      }),
      breath: words,
      how: fc.constantFrom('', 'Stand tall. Sit down to the chair, then stand up.'),
      setUp: some(SET_UPS),
      precursors: fc.constant([]),
      progression: fc.constantFrom(...PROGRESSIONS),
      phases: fc.constant(['lower', 'rise']),
      cues: fc.tuple(cue('first'), cue('second')).map((cues) => [...cues]),
      faults: fc.tuple(fault('bend'), fault('drop')).map((faults) => [...faults]),
      links: fc.constant([]),
      cautions: fc.array(words, { maxLength: 2 }),
    })
    .map((draft) => {
      const checked = checkMovement(draft);
      if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
      return checked.value;
    });

/** A small library with ids of its own. */
export const lawfulMovements = (most: number): fc.Arbitrary<Movement[]> =>
  fc
    .integer({ min: 1, max: most })
    .chain((size) => fc.tuple(...Array.from({ length: size }, (_, i) => lawfulMovement(`movement-${i}`))));
