import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import { NO_EVIDENCE } from '../coaching/index.js';
import { type Movement, SEVERITIES } from '../movement/index.js';
import { emptyPlan, type Plan } from '../planning/index.js';
import { lawfulMovement } from '../test/movements.js';
import { clientId } from '../test/plans.js';
import { sheetMarkdown, sheetOf, type SheetSource } from './index.js';

const eight = { item: 'dumbbell', count: 2, kg: 16, label: '2 × 8 kg', changeSeconds: 0 } as const;
const ten = { item: 'dumbbell', count: 2, kg: 20, label: '2 × 10 kg', setting: '5 + 2.5', changeSeconds: 30 } as const;

const planOf = (ids: readonly string[]): Plan => ({
  ...emptyPlan([clientId(0), clientId(1)], 45),
  name: 'Thursday',
  blocks: [
    {
      id: clientId(7),
      kind: 'superset',
      rounds: 3,
      workSeconds: null,
      items: ids.map((movementId, i) => ({
        id: clientId(10 + i),
        locked: false,
        tied: false,
        lanes: [0, 1].map((who) => ({
          clientId: clientId(who),
          movementId,
          withId: null,
          sets: 1,
          amount: 10 + i,
          tempo: '2-0-1-0',
          rest: 45,
          load: i === 0 ? null : i === 1 ? eight : ten,
          why: [],
        })),
      })),
    },
  ],
});

const sourceOf = (movements: readonly Movement[]): SheetSource => ({
  plan: planOf(movements.map(({ id }) => id)),
  client: { id: clientId(0), name: 'Ada' },
  studio: { name: 'Loft', trainer: 'Bo' },
  where: 'Loft',
  minutes: 41,
  find: (id) => movements.find((movement) => movement.id === id),
  neighbours: () => ({ easier: 'An easier one', harder: null }),
  evidence: NO_EVIDENCE,
  setUps: [],
  closed: () => null,
  sets: { m1: [{ at: '2030-02-01T10:00:00.000Z', sets: [{ amount: 9, effort: 'easy', clean: true, kg: 12 }] }] },
  faults: {},
  now: '2030-03-01T10:00:00.000Z',
});

/** Movements that somebody does alone. */
const alone = (id: string) => lawfulMovement(id).map((movement): Movement => ({ ...movement, demands: {} }));
const three = fc.tuple(alone('m0'), alone('m1'), alone('m2'));

test('a sheet has every line once, at most three reminders, one thing to watch, kit changes and what is different', () => {
  fc.assert(
    fc.property(three, (movements) => {
      const sheet = sheetOf(sourceOf(movements));
      const lines = sheet.blocks.flatMap(({ lines: all }) => all);
      expect(lines.map(({ movementId }) => movementId)).toEqual(['m0', 'm1', 'm2']);
      lines.forEach((line, i) => {
        const movement = movements[i] as Movement;
        const side = movement.sides === 'each' ? ' a side' : '';
        expect(line.dose).toBe(`3 × ${10 + i} reps${side}, tempo 2-0-1-0, 45 s rest`);
        expect(line.reminders.length).toBeLessThanOrEqual(3);
        for (const reminder of line.reminders) expect(movement.cues.map(({ text }) => text)).toContain(reminder);
        // The most dangerous is named, whatever is likelier.
        const worst = SEVERITIES.find((severity) => movement.faults.some((fault) => fault.severity === severity));
        const named = movement.faults.filter(({ name }) => name === line.watchOut);
        expect(named.map(({ severity }) => severity)).toContain(worst);
      });
      expect(lines.map(({ kit }) => kit)).toEqual([null, '2 × 8 kg', '2 × 10 kg (5 + 2.5 on each end): change']);
      expect(lines.map(({ changed }) => changed)).toEqual(['new', '9 to 11 reps, 12 to 16 kg', 'new']);
      for (const { name, cautions } of movements)
        for (const caution of cautions) expect(sheet.cautions).toContain(`${name}: ${caution}`);
      expect(sheet.cautions.join()).toContain('qualified clinician');
      const text = sheetMarkdown(sheet, 'Thursday 1 March');
      expect(text).toContain('Ada · Thursday 1 March · 41 min · Loft · Bo');
      expect(text.match(/^\d+\. /gm)).toHaveLength(3);
      // Whatever a trainer writes, it is read as words and not as markup.
      expect(text.replaceAll(/\\./g, '')).not.toMatch(/^\s*(?:#{3,}|\|)|[<>|]/m);
    }),
    { numRuns: 40, endOnFailure: true },
  );
});

test('away from the studio a line says how the movement is done, from start to end', () => {
  fc.assert(
    fc.property(three, (movements) => {
      const source = sourceOf(movements);
      const hows = ({ plan }: SheetSource) =>
        sheetOf({ ...source, plan }).blocks.flatMap(({ lines }) => lines.map(({ how }) => how));
      expect(hows(source)).toEqual([null, null, null]);
      const home = { ...source, plan: { ...source.plan, place: { kind: 'home' as const, id: clientId(0) } } };
      expect(hows(home)).toEqual(movements.map(({ how }) => how || null));
    }),
    { numRuns: 10 },
  );
});

test('what needs somebody to help is to be left out by somebody alone', () => {
  fc.assert(
    fc.property(three, ([first, ...others]) => {
      const helped: Movement = { ...first, demands: { 'second-person': 1 } };
      expect(sheetOf(sourceOf([helped, ...others])).blocks[0]?.lines[0]?.leaveOut).toContain('needs somebody to help');
    }),
    { numRuns: 10 },
  );
});

test('what was closed since it was planned is to be left out, and nothing else of it is said', () => {
  fc.assert(
    fc.property(three, (movements) => {
      const source = sourceOf(movements);
      const sheet = sheetOf({ ...source, closed: (id) => (id === 'm1' ? 'knee: sore' : null) });
      const [first, second] = sheet.blocks.flatMap(({ lines }) => lines);
      expect(first?.leaveOut).toBeNull();
      expect(second).toMatchObject({ dose: '', kit: null, reminders: [], easier: null, harder: null });
      expect(second?.leaveOut).toContain('knee: sore');
      expect(sheetMarkdown(sheet, null)).toContain('Leave this out for now');
    }),
    { numRuns: 10 },
  );
});
