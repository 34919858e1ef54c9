import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { checkClientFile, CLIENT_FILE_FORMAT } from '../formats/client-file.js';
import { LOOKS } from '../movement/looks.js';
import { DEMANDS, KIT_ITEMS, REGIONS, SPACES } from '../movement/vocabulary.js';
import { checkedBy } from '../schema/atoms.js';
import {
  BLANK_CLIENT,
  type Client,
  clientChangeSchema,
  clientSchema,
  DAY_KINDS,
  limitsToday,
  newClientSchema,
} from './index.js';
import { BODY_SIDES } from './pain.js';
import { BENCHMARK_UNITS, READINESS_QUESTIONS } from './screening.js';

/** Words that a line may hold: anything that can be seen, and spaces between. */
const line = (most: number) =>
  fc.string({ unit: fc.constantFrom(...'abcÄßé 0-.,’“”'), maxLength: most }).filter((words) => words.length <= most);
const called = (most: number) => line(most - 1).map((words) => `n${words}`);
const day = fc
  .date({ min: new Date('1950-01-01'), max: new Date('2100-01-01'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: null });
const hundredths = (low: number, high: number) => fc.integer({ min: low * 100, max: high * 100 }).map((n) => n / 100);

const piece = fc.record(
  {
    item: fc.constantFrom(...KIT_ITEMS),
    count: fc.integer({ min: 1, max: 99 }),
    kg: maybe(hundredths(1, 500)),
    label: maybe(line(40)),
    unit: maybe(fc.constant('lb' as const)),
    plates: maybe(
      fc.array(fc.record({ kg: hundredths(1, 100), count: fc.integer({ min: 1, max: 99 }) }), { maxLength: 4 }),
    ),
    heightsCm: maybe(fc.array(fc.integer({ min: 1, max: 200 }), { maxLength: 4 })),
  },
  { requiredKeys: ['item', 'count'] },
);
const limit = fc.record(
  {
    demand: fc.constantFrom(...DEMANDS),
    allowed: fc.integer({ min: 0, max: 2 }),
    reason: called(200),
    until: maybe(day),
    condition: maybe(fc.constantFrom('worn-knee', 'diabetes')),
    since: maybe(day),
  },
  { requiredKeys: ['demand', 'allowed', 'reason'] },
);
const pain = fc.record({
  region: fc.constantFrom(...REGIONS),
  side: fc.constantFrom(...BODY_SIDES),
  quality: fc.constantFrom('sore' as const, 'sharp' as const),
});
const score = fc.integer({ min: 1, max: 5 });

const client: fc.Arbitrary<Client> = fc.record({
  id: fc.uuid(),
  version: fc.integer({ min: 1, max: 1000 }),
  name: called(80),
  about: line(200),
  goal: line(200),
  healthNote: line(300),
  touchConsentOn: maybe(day),
  filmConsentOn: maybe(day),
  email: fc.constantFrom('', 'mail@example.org', 'jürgen.o’neill+gym@sub.example.org'),
  note: line(300),
  trainingYears: maybe(fc.integer({ min: 0, max: 90 })),
  bodyKg: maybe(hundredths(20, 400)),
  dayMostly: maybe(fc.constantFrom(...DAY_KINDS)),
  looks: maybe(fc.constantFrom(...LOOKS)),
  unit: fc.constantFrom('kg' as const, 'lb' as const),
  readiness: maybe(
    fc.record({
      on: day,
      yes: fc.uniqueArray(fc.constantFrom(...READINESS_QUESTIONS.map(({ id }) => id)), { maxLength: 3 }),
      clearedOn: maybe(day),
      clearedBy: line(100),
    }),
  ),
  today: maybe(fc.record({ on: day, sleep: score, energy: score, pains: fc.array(pain, { maxLength: 3 }) })),
  benchmarks: fc.array(
    fc.record({ name: called(60), unit: fc.constantFrom(...BENCHMARK_UNITS), on: day, value: hundredths(0, 1000) }),
    { maxLength: 3 },
  ),
  limits: fc.array(limit, { maxLength: 4 }),
  painsOver: fc.array(fc.record({ pain: fc.uuid(), on: day, by: called(200) }), { maxLength: 3 }),
  cleared: fc.array(
    fc.record({
      condition: fc.constant('turned-ankle'),
      name: called(60),
      since: maybe(day),
      on: day,
      by: called(200),
    }),
    { maxLength: 2 },
  ),
  kit: fc.array(piece, { maxLength: 4 }),
  homeSpace: fc.constantFrom(...SPACES),
  houseRules: fc.dictionary(fc.constantFrom('knees', 'breath'), fc.constantFrom('over', 'held')),
});

const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const FIELDS = Object.keys(BLANK_CLIENT) as (keyof typeof BLANK_CLIENT)[];
const fileOf = (one: object, formatVersion: 1 | 2 = 2) => ({
  format: CLIENT_FILE_FORMAT,
  formatVersion,
  client: one,
  sessions: [],
  plans: [],
});
/** What no field takes. */
const JUNK = [undefined, -42.5, { x: 1 }, [[]], '\u0007', true] as const;

describe('a client', () => {
  test('that is lawful passes as it is, goes into a file and comes back the same', () => {
    fc.assert(
      fc.property(client, (one) => {
        expect(checkedBy(clientSchema, sent(one))).toEqual({ ok: true, value: sent(one) });
        const { version: _, ...own } = one;
        expect(checkClientFile(sent(fileOf(own)))).toMatchObject({ ok: true, value: { client: sent(own) } });
      }),
    );
  });

  test('of an older file, which knows less, is blank where nothing is said; a new one likewise, and a change says nothing more', () => {
    fc.assert(
      fc.property(client, fc.subarray(FIELDS), ({ id, name, version, ...own }, said) => {
        const parts = Object.fromEntries(said.map((field) => [field, own[field]]));
        const whole = { ...BLANK_CLIENT, id, name, ...parts };
        expect(checkClientFile(sent(fileOf({ id, name, ...parts }, 1)))).toMatchObject({
          ok: true,
          value: { client: sent({ ...whole, limits: limitsToday(whole.limits) }) },
        });
        expect(checkedBy(newClientSchema, sent({ name, ...parts }))).toEqual({
          ok: true,
          value: sent({ name, ...parts }),
        });
        expect(checkedBy(clientChangeSchema, sent({ version, ...parts }))).toEqual({
          ok: true,
          value: sent({ version, ...parts }),
        });
      }),
    );
  });

  test('with one field spoilt, or one that nobody knows, is refused at that field, wherever it comes from', () => {
    fc.assert(
      fc.property(
        client,
        fc.constantFrom(...FIELDS, 'name' as const),
        fc.integer({ min: 1, max: JUNK.length - 1 }),
        (one, field, n) => {
          const { version: _, ...own } = one;
          const spoilt = { ...own, [field]: JUNK[n] };
          const { id: __, ...fields } = spoilt;
          const inFile = checkClientFile(sent(fileOf(spoilt)));
          const inChange = checkedBy(clientChangeSchema, sent({ ...fields, version: 1 }));
          for (const [checked, before] of [
            [inFile, 'client.'],
            [inChange, ''],
          ] as const) {
            if (checked.ok) throw new Error(`${field} = ${JSON.stringify(JUNK[n])} passed`);
            for (const { path } of checked.problems) expect(path.startsWith(`${before}${field}`)).toBe(true);
          }
          const stranger = checkedBy(newClientSchema, sent({ ...fields, [field]: one[field], shoeSize: 42 }));
          expect(stranger).toEqual({ ok: false, problems: [{ path: 'shoeSize', message: 'is not a known field' }] });
        },
      ),
    );
  });
});
