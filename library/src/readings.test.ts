import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

import { expect, test } from '@jest/globals';
import { withInHand } from '@waxwing/core/movement';

import { loadLibrary } from './load.js';
import { READINGS, STARTER_FOLDER } from './places.js';
import { loadReadings, noteReadings, toBeRead, wordsHash } from './readings.js';

const movements = loadLibrary(STARTER_FOLDER);
const [first] = movements;
if (!first) throw new Error('empty library');

test('a reading holds until a word changes, and no longer; numbers and links are no words', () => {
  const readings = { [first.id]: { on: '2030-01-31', words: wordsHash(first) } };
  expect(toBeRead([first], readings)).toEqual([]);
  expect(toBeRead([{ ...first, links: [], demands: {} }], readings)).toEqual([]);
  expect(toBeRead([{ ...first, how: `${first.how} Then rest.` }], readings)).toEqual([first.id]);
  const faults = first.faults.map((fault) => ({ ...fault, corrections: fault.corrections.slice(1) }));
  expect(toBeRead([{ ...first, faults }], readings)).toEqual([first.id]);
  expect(toBeRead([first], {})).toEqual([first.id]);
});

test('what is noted as read comes back, beside what was noted before, and nothing else', () => {
  const folder = mkdtempSync(join(tmpdir(), 'waxwing-readings-'));
  const file = join(folder, 'readings.yaml');
  copyFileSync(READINGS, file);
  const before = loadReadings(file);
  noteReadings(file, movements, [first.id], '2031-02-03');
  const { [first.id]: noted, ...others } = loadReadings(file);
  expect(noted).toEqual({ on: '2031-02-03', words: wordsHash(first) });
  const { [first.id]: _, ...othersBefore } = before;
  expect(others).toEqual(othersBefore);
  rmSync(folder, { recursive: true });
});

test('a cue that is only true of one kind of kit is said with that in the hand, and with nothing known, and no reference to it is left', () => {
  const some = movements.flatMap((movement) =>
    movement.cues.flatMap((cue) => (cue.for ? [{ movement, cue, kit: cue.for.kit }] : [])),
  );
  expect(some.length).toBeGreaterThan(0);
  for (const { movement, cue, kit } of some) {
    const said = (item: Parameters<typeof withInHand>[1]) =>
      withInHand(movement, item).cues.some(({ id }) => id === cue.id);
    expect([movement.id, said(undefined), kit.every(said)]).toEqual([movement.id, true, true]);
    const other = movement.kit.flatMap(({ needs }) => needs).find(({ item }) => !kit.includes(item))?.item ?? 'mat';
    const without = withInHand(movement, other);
    expect(without.cues.map(({ id }) => id)).not.toContain(cue.id);
    for (const { corrections } of without.faults) expect(corrections.map(({ cueId }) => cueId)).not.toContain(cue.id);
  }
});
