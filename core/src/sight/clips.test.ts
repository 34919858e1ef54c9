/** Real landmarks of filmed figures, as the model gave them, so that what is read of them needs no browser. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

import { beforeAll, describe, expect, test } from '@jest/globals';
import { loadFaultKinds, loadFigures, loadLibrary } from '@waxwing/library';

import { type FigureLibrary, motionOf } from '../body/index.js';
import type { FaultKind, Movement, View } from '../movement/index.js';
import {
  amountWords,
  type Answer,
  type Body,
  outcomeFrom,
  type Reading,
  readSeries,
  repWords,
  sentencesOf,
  type Series,
  seriesFrom,
  turnedSeries,
} from './index.js';

const LIBRARY = join(import.meta.dirname, '../../../library');
const CLIPS = join(import.meta.dirname, 'clips');

interface Clip {
  movement: string;
  view: View;
  fault: string | null;
  trouble: string;
  reps: number;
  rate: number;
  /** Places on the picture and in the room, how sure, and the box: the numbers are whole ones in base64. */
  bodies: ([flat: string, deep: string, seen: string, box: [number, number, number, number]] | null)[];
}

const wholeNumbers = (text: string): Float32Array => {
  const bytes = Buffer.from(text, 'base64');
  return Float32Array.from({ length: bytes.length / 2 }, (_, i) => bytes.readInt16LE(i * 2) / 8000);
};

const bodyOf = ([flat, deep, seen, [left, top, right, bottom]]: NonNullable<Clip['bodies'][number]>): Body => ({
  flat: wholeNumbers(flat),
  deep: wholeNumbers(deep),
  seen: Float32Array.from(Buffer.from(seen, 'base64'), (x) => x / 100),
  box: { left, top, right, bottom },
});

const seriesOfClip = ({ bodies, rate }: Clip): Series =>
  seriesFrom(bodies.map((body, i) => ({ at: i / rate, body: body && bodyOf(body) })));

let library: Movement[];
let figures: FigureLibrary;
let kinds: FaultKind[];
let clips: Clip[];
beforeAll(() => {
  library = loadLibrary(join(LIBRARY, 'movements'));
  figures = loadFigures(join(LIBRARY, 'figures'));
  kinds = loadFaultKinds(join(LIBRARY, 'fault-kinds.yaml'));
  clips = readdirSync(CLIPS).map((name) => JSON.parse(readFileSync(join(CLIPS, name), 'utf8')) as Clip);
});

const movementOf = ({ movement }: Clip): Movement => {
  const found = library.find(({ id }) => id === movement);
  if (!found) throw new Error(`no ${movement}`);
  return found;
};

function readClip(clip: Clip, series = seriesOfClip(clip)): Reading | null {
  const movement = movementOf(clip);
  const figure = figures.figures[movement.id];
  if (!figure) throw new Error(`${movement.id} is not drawn`);
  const motion = (faults: Record<string, number>) => motionOf(figures, figure, movement, faults);
  const { tempo } = movement.dose;
  const faulty = (kind: string) => {
    const drawn = movement.faults.find((fault) => fault.kind === kind && figure.faults[fault.id]);
    return drawn ? motion({ [drawn.id]: 1 }) : null;
  };
  const own = kinds.filter(({ id, measure }) => measure && movement.faults.some(({ kind }) => kind === id));
  return readSeries(series, { motion: motion({}), position: movement.position, tempo, usualTempo: tempo, faulty }, own);
}

const clipOf = (movement: string, fault: string | null, view?: View): Clip => {
  const found = clips.find(
    (one) =>
      one.movement === movement && one.fault === fault && one.trouble !== 'empty' && (!view || one.view === view),
  );
  if (!found) throw new Error(`no clip of ${movement}`);
  return found;
};

describe('clips of the figure', () => {
  test('are read from where they were taken, counted exactly, and only what is there is seen in them', () => {
    expect(clips.length).toBeGreaterThan(6);
    for (const clip of clips) {
      const reading = readClip(clip);
      if (clip.trouble === 'empty') {
        expect(reading).toBeNull();
        continue;
      }
      const kind = movementOf(clip).faults.find(({ id }) => id === clip.fault)?.kind;
      const name = `${clip.movement} ${clip.view} ${clip.fault ?? clip.trouble}`;
      expect([name, reading?.stand.view, reading?.reps.length]).toEqual([name, clip.view, clip.reps]);
      const seen = reading?.answers.filter((answer) => answer.seen.length > 0) ?? [];
      // Who sways takes the elbows along, which is seen as well.
      expect([name, seen.filter(({ kind: one }) => one !== 'elbows-drift').map((answer) => answer.kind)]).toEqual([
        name,
        kind ? [kind] : [],
      ]);
      if (kind) expect(seen.find((answer) => answer.kind === kind)?.seen).toHaveLength(clip.reps);
      expect(reading?.present).toBeGreaterThan(0.95);
    }
  });

  test('that lie on their side or their head are put upright and read the same', () => {
    const clip = clipOf('goblet-squat', 'knees-in');
    const series = seriesOfClip(clip);
    const upright = readClip(clip, series);
    for (const quarters of [1, 2, 3] as const) {
      const turned = readClip(clip, turnedSeries(series, quarters));
      expect([quarters, turned?.quarters]).toEqual([quarters, 4 - quarters]);
      expect(turned?.reps.length).toBe(upright?.reps.length);
      expect(turned?.answers.map(({ seen }) => seen)).toEqual(upright?.answers.map(({ seen }) => seen));
    }
  });

  test('say in sentences what was seen, what was not, and what cannot be told from there', () => {
    const reading = readClip(clipOf('goblet-squat', 'knees-in'));
    if (!reading) throw new Error('nothing was read');
    const said = sentencesOf(reading, (kind) => kind);
    expect(said.facts[0]).toBe('4 reps.');
    expect(said.seen[0]?.words).toMatch(/^knees-in: every rep, up to \d+ cm\.$/);
    expect(said.cannot).toContainEqual({ why: 'not from the front', kinds: ['heels-lift'] });
    const none = sentencesOf({ ...reading, reps: [], answers: [] }, (kind) => kind);
    expect(none.facts).toEqual(['No whole rep was seen.']);
    expect([[0], [0, 2], [1, 2, 3, 6]].map(repWords)).toEqual(['1', '1 and 3', '2–4 and 7']);
    expect(amountWords(5.6, 'cm')).toBe('6 cm');
  });

  test('tell what came of a correction, and nothing where one of the two cannot tell', () => {
    const answer = (more: Partial<Answer>): Answer => ({
      kind: 'knees-in',
      unit: 'cm',
      seen: [0, 1, 2, 3],
      judged: 4,
      amounts: [14, 14, 13, 15],
      sure: 1,
      cannot: null,
      ...more,
    });
    const before = answer({});
    expect(outcomeFrom(before, answer({ seen: [], amounts: [1, 0, 2, 1] }))).toBe('fixed');
    expect(outcomeFrom(before, answer({ amounts: [6, 7, 6, 6] }))).toBe('better');
    expect(outcomeFrom(before, answer({ amounts: [14, 13, 14, 15] }))).toBe('same');
    expect(outcomeFrom(before, answer({ cannot: 'view', seen: [], judged: 0 }))).toBeNull();
    expect(outcomeFrom(answer({ seen: [], amounts: [0, 0, 0, 0] }), before)).toBeNull();
  });
});
