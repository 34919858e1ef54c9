/** The starter library as it is searched: what a trainer would type, letter by letter, leads to what they mean. */
import { join } from 'node:path';

import { beforeAll, describe, expect, test } from '@jest/globals';
import { buildFinding, type Finding, type Movement, searchTextOf } from '@waxwing/core/movement';

import { loadLibrary } from './index.js';

let library: Movement[];
let finding: Finding;
beforeAll(() => {
  library = loadLibrary(join(import.meta.dirname, '../movements'));
  finding = buildFinding(library.map(searchTextOf));
});

const ids = (words: string): string[] => finding.movements(words).ids;

describe('every movement', () => {
  test('is the first answer to its name, in any case', () => {
    for (const { id, name } of library) {
      expect([name, ids(name)[0]]).toEqual([name, id]);
      expect(ids(name.toUpperCase())[0]).toBe(id);
    }
  });

  test('is never lost while its name is typed', () => {
    for (const { id, name } of library)
      for (let end = 3; end < name.length; end += 1) {
        const typed = name.slice(0, end).trim();
        // A part that is one little word or letter says nothing yet.
        if (/(^|\s)\S{1,2}$/.test(typed)) continue;
        expect([typed, ids(typed).includes(id)]).toEqual([typed, true]);
      }
  });

  test('is found by each of its other names, each of its cues and each of its faults', () => {
    for (const { id, aliases, cues, faults } of library) {
      for (const alias of aliases) expect([alias, ids(alias).includes(id)]).toEqual([alias, true]);
      for (const { text } of cues) expect([text, ids(text).includes(id)]).toEqual([text, true]);
      for (const { name } of faults) {
        const found = finding.faults(name).find((fault) => fault.name === name);
        expect([name, found?.movements.some((one) => one.id === id)]).toEqual([name, true]);
      }
    }
  });

  test('is still found with two letters of a long word changed places', () => {
    for (const { id, name } of library) {
      const word = name.split(/[\s-]/).find((one) => one.length > 6);
      if (!word) continue;
      const slipped = `${word.slice(0, 2)}${word[3]}${word[2]}${word.slice(4)}`;
      if (ids(slipped).length === 0) throw new Error(`nothing for ${slipped}`);
      expect([slipped, ids(slipped).includes(id)]).toEqual([slipped, true]);
    }
  });
});

describe('an answer', () => {
  test('names no movement twice, no more than was asked for, and counts all of them', () => {
    for (const words of ['squat', 'knees fall in', 'band', 'glutes', 'b', 'row one arm', 'single leg s']) {
      const all = finding.movements(words);
      expect(new Set(all.ids).size).toBe(all.ids.length);
      expect(all.total).toBe(all.ids.length);
      const few = finding.movements(words, 3);
      expect(few).toEqual({ ids: all.ids.slice(0, 3), total: all.total });
    }
  });

  test('with another word is never wider', () => {
    const words = ['squat', 'goblet', 'chair', 'knees', 'band', 'row', 'slow', 'floor'];
    for (const one of words)
      for (const other of words) {
        const wide = new Set(ids(one));
        const narrow = finding.movements(`${other} ${one}`);
        // When nothing has both, near spellings are offered instead.
        if (library.some((m) => [one, other].every((w) => JSON.stringify(searchTextOf(m)).toLowerCase().includes(w))))
          for (const id of narrow.ids) expect(wide.has(id)).toBe(true);
      }
  });

  test('to nothing is nothing, and a little word is the beginning of a longer one', () => {
    for (const words of ['', '  ', '?!']) expect(finding.movements(words)).toEqual({ ids: [], total: 0 });
    expect(finding.faults(' ')).toEqual([]);
    expect(ids('for')).toContain('forearm-plank');
  });
});
