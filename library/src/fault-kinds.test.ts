/** How trainers name what they see: the kind that they mean comes first. */
import { join } from 'node:path';

import { beforeAll, describe, expect, test } from '@jest/globals';
import {
  buildFinding,
  buildKindFinder,
  checkFaultKinds,
  type FaultKind,
  type KindFinder,
  type Movement,
  type Saying,
  searchTextOf,
} from '@waxwing/core/movement';

import { loadFaultKinds, loadLibrary, loadSayings } from './index.js';

let kinds: FaultKind[];
let sayings: Saying[];
let library: Movement[];
let finder: KindFinder;
beforeAll(() => {
  kinds = loadFaultKinds(join(import.meta.dirname, '../fault-kinds.yaml'));
  sayings = loadSayings(join(import.meta.dirname, '../sayings.yaml'));
  library = loadLibrary(join(import.meta.dirname, '../movements'));
  finder = buildKindFinder(
    kinds,
    library.map(({ name }) => name),
  );
});

const kindsOf = (words: string): string[] => finder.find(words).map(({ kind }) => kind.id);

describe('what trainers say', () => {
  test('leads to the kind that they mean: first in 95 of 100, among the first three in 99', () => {
    expect(new Set(sayings.map(({ said }) => said)).size).toBe(sayings.length);
    expect(sayings.length).toBeGreaterThanOrEqual(320);
    const known = new Set(kinds.map(({ id }) => id));
    expect(sayings.filter(({ means }) => !known.has(means))).toEqual([]);
    const wrong = sayings.filter(({ said, means }) => kindsOf(said)[0] !== means);
    const named = wrong.map(({ said }) => [said, ...kindsOf(said).slice(0, 3)]);
    expect(named.slice(Math.floor(sayings.length * 0.05))).toEqual([]);
    const lost = wrong.filter(({ said, means }) => !kindsOf(said).slice(0, 3).includes(means));
    expect(lost.slice(Math.floor(sayings.length * 0.01))).toEqual([]);
  });

  test('is each of its own phrases first, and still among the first with a slip of the finger', () => {
    for (const { id, name, words } of kinds)
      for (const phrase of [name, ...words]) {
        expect([phrase, kindsOf(phrase)[0]]).toEqual([phrase, id]);
        const long = phrase.split(' ').find((word) => word.length > 5);
        if (!long) continue;
        const slipped = phrase.replace(long, `${long.slice(0, 2)}${long.slice(3)}`);
        expect([slipped, kindsOf(slipped).includes(id)]).toEqual([slipped, true]);
      }
  });

  test('is nothing where nothing known is said', () => {
    for (const words of ['', ' ', 'the', 'xylophone', 'qqqq zzzz']) expect(kindsOf(words)).toEqual([]);
  });
});

describe('a search by what is seen', () => {
  test('finds every movement that has it, whatever it is called there, and names the kind', () => {
    const finding = buildFinding(library.map(searchTextOf), kinds);
    const tucks = library.filter(({ faults }) => faults.some((fault) => finder.of(fault)?.id === 'pelvis-tucks'));
    expect(tucks.length).toBeGreaterThan(3);
    const [first] = finding.faults('bum tucks');
    expect(first).toMatchObject({ kindId: 'pelvis-tucks' });
    const ids = tucks.map(({ id }) => id).toSorted();
    expect(first?.movements.map(({ id }) => id).toSorted()).toEqual(ids);
    expect([...finding.movements('butt tucks').ids].toSorted()).toEqual(expect.arrayContaining(ids));
    // What most ways lead through comes first.
    expect(finding.movements('knees caving in', 3).ids).toEqual(
      expect.arrayContaining(['bodyweight-squat', 'goblet-squat']),
    );
    // A name stays a name.
    expect(finding.movements('goblet squat').ids[0]).toBe('goblet-squat');
  });

  test('in one movement leads to its own fault of that kind, though its name is among the words', () => {
    const names = library.map(({ name }) => name);
    let asked = 0;
    const wrong = sayings.flatMap(({ said, means }, i) => {
      const having = library.filter(({ faults }) => faults.some((fault) => finder.of(fault)?.id === means));
      const movement = having[i % Math.max(1, having.length)];
      if (!movement) return [];
      asked += 1;
      const [first] = buildFinding([searchTextOf(movement)], kinds, names).faults(said);
      const fault = movement.faults.find(({ id }) => id === first?.movements[0]?.faultId);
      return fault && finder.of(fault)?.id === means ? [] : [`${said} in ${movement.id}: ${fault?.name ?? 'nothing'}`];
    });
    expect(wrong.slice(Math.floor(asked * 0.05))).toEqual([]);
  });

  test('in one movement finds its own fault, and nothing where it has none of that kind', () => {
    const squat = library.find(({ id }) => id === 'bodyweight-squat');
    if (!squat) throw new Error('no squat');
    const finding = buildFinding([searchTextOf(squat)], kinds);
    const seen = (words: string) =>
      finding.faults(words).flatMap(({ movements }) => movements.map(({ faultId }) => faultId));
    const heels = squat.faults.find((fault) => finder.of(fault)?.id === 'heels-lift');
    expect(seen('heals lift')[0]).toBe(heels?.id);
    expect(seen('wobbly')).toEqual([]);
    expect(finding.meant('wobbly')?.id).toBe('balance-lost');
    expect(finding.meant('xylophone')).toBeUndefined();
  });
});

test('a vocabulary with a phrase in two kinds, or an id twice, is refused by name', () => {
  const [one, two] = kinds;
  expect(checkFaultKinds([one, { ...two, words: [...(two?.words ?? []), one?.words[0]] }])).toMatchObject({
    ok: false,
  });
  expect(checkFaultKinds([one, one])).toMatchObject({ ok: false });
});
