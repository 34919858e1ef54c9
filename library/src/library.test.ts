import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { libraryHealth } from '@waxwing/core/ladder';
import { buildKindFinder } from '@waxwing/core/movement';

import {
  LibraryError,
  loadCauses,
  loadExceptions,
  loadFaultKinds,
  loadLibrary,
  loadRules,
  shortfalls,
  type Standards,
} from './index.js';

const STARTER = join(import.meta.dirname, '../movements');

const STANDARDS: Standards = {
  rules: loadRules(join(STARTER, '../house-rules.yaml')),
  causes: loadCauses(join(STARTER, '../causes.yaml')),
  kinds: loadFaultKinds(join(STARTER, '../fault-kinds.yaml')),
  exceptions: loadExceptions(join(STARTER, '../exceptions.yaml')),
};

test('the starter library loads, keeps its own standards and is as large as it says', () => {
  const movements = loadLibrary(STARTER);
  expect(shortfalls(movements, STANDARDS)).toEqual([]);
  // What the trainer's own movements are looked over by finds nothing here either.
  expect(libraryHealth(movements, buildKindFinder(STANDARDS.kinds).of).gaps).toEqual([]);
  expect(movements.length).toBeGreaterThanOrEqual(320);
  expect(STANDARDS.rules.length).toBeGreaterThanOrEqual(10);
});

test('nothing in it is unsafe to find: every swap of a stop fault asks no more than the movement it leaves', () => {
  const movements = loadLibrary(STARTER);
  const byId = new Map(movements.map((movement) => [movement.id, movement]));
  const sum = (id: string) => Object.values(byId.get(id)?.demands ?? {}).reduce((total, amount) => total + amount, 0);
  for (const { id, faults } of movements)
    for (const fault of faults.filter((one) => one.severity === 'stop'))
      for (const { swapTo } of fault.corrections)
        if (swapTo) expect({ from: id, to: swapTo, more: sum(swapTo) > sum(id) }).toMatchObject({ more: false });
});

test('standards see a thin movement, a copy, one off its ladder, a rule that switches nothing, an unknown kind and causes beside the vocabulary', () => {
  const [first, second] = loadLibrary(STARTER);
  if (!first || !second) throw new Error('empty library');
  const cues = [{ ...second.cues[0], text: first.cues[0]?.text } as (typeof second.cues)[number]];
  const faults = second.faults.map((fault) => ({
    ...fault,
    kind: 'nothing-known',
    causes: ['load/full-moon'],
  }));
  const thin = { ...second, cues, faults, links: [] };
  const copy = { ...first, id: 'copy', links: [] };
  const messages = shortfalls([{ ...first, links: [] }, thin, copy], STANDARDS).map((s) => s.message);
  expect(messages).toContain('has 1 cues, needs 5');
  expect(messages).toContain('has no easier movement');
  expect(messages).toContain('switches nothing');
  expect(messages).toContain(`“${second.faults[0]?.name ?? ''}” is of no known kind`);
  expect(messages).toContain('"load/full-moon" is not one of the causes');
  expect(messages).toContain('is the cause of nothing');
  expect(messages).toContain(`is a copy of ${first.id}`);
});

test('an exception takes out what it names, and is a shortfall of its own when nothing needs it or there are too many', () => {
  const movements = loadLibrary(STARTER);
  const [first] = movements;
  if (!first) throw new Error('empty library');
  const short = movements.map((one) => (one === first ? { ...one, cautions: ['Dull is right.'] } : one));
  const rules = (exceptions: Standards['exceptions']) =>
    shortfalls(short, { ...STANDARDS, exceptions }).map(({ rule }) => rule);
  const needed = { rule: 'caution', movement: first.id, why: 'Tried here.' };
  expect(rules([])).toEqual(['caution']);
  expect(rules([needed])).toEqual([]);
  expect(rules([needed, { ...needed, rule: 'views' }])).toEqual(['views']);
  expect(rules(Array.from({ length: 26 }, () => needed))).toEqual(['exceptions']);
});

test('a broken file of house rules is named by file and path', () => {
  const file = join(mkdtempSync(join(tmpdir(), 'waxwing-rules-')), 'house-rules.yaml');
  writeFileSync(
    file,
    '- { id: depth, matter: Depth, both: Back long, options: [{ id: one, name: One, reason: Why }] }',
  );
  expect(() => loadRules(file)).toThrow('house-rules.yaml: [0].options needs at least two options');
  writeFileSync(file, 'id: [');
  expect(() => loadRules(file)).toThrow('house-rules.yaml');
});

describe('a broken file', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'waxwing-library-'));
    cpSync(STARTER, folder, { recursive: true });
  });
  afterEach(() => rmSync(folder, { recursive: true }));

  const after = (edit: (text: string) => string): string => {
    const file = join(folder, 'squat/goblet-squat.yaml');
    writeFileSync(file, edit(readFileSync(file, 'utf8')));
    try {
      loadLibrary(folder);
    } catch (error) {
      if (error instanceof LibraryError) return error.message;
      throw error;
    }
    return 'loaded';
  };

  test.each<[string, (text: string) => string, string]>([
    ['missing phases', (t) => t.replace(/^phases:.*$/m, ''), 'squat/goblet-squat.yaml: phases is missing'],
    [
      'a phase taken out',
      (t) => t.replace('[set-up, lower, bottom,', '[set-up, lower,'),
      'squat/goblet-squat.yaml: cues[4].phase "bottom" is not one of',
    ],
    [
      'a correction to nowhere',
      (t) => t.replace('swapTo: bodyweight-squat', 'swapTo: moon-squat'),
      'squat/goblet-squat.yaml: faults[1].corrections[5].swapTo no movement "moon-squat"',
    ],
    ['not YAML', () => 'id: [', 'squat/goblet-squat.yaml: is not valid YAML'],
    [
      'a circle',
      (t) => t.replace('to: dumbbell-front-squat, direction: harder', 'to: sit-to-stand, direction: harder'),
      'run in a circle',
    ],
  ])('%s is named by file and path', (_, edit, expected) => expect(after(edit)).toContain(expected));
});
