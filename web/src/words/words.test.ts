/** Every reason that core can give is said in words: each code has its sentence, and none of it is code. */
import { expect, test } from '@jest/globals';
import type { Movement } from '@waxwing/core/movement';
import type { LineReason, Note, Reordered, Wrong } from '@waxwing/core/planning';
import type { NextStep } from '@waxwing/core/progress';
import type { Lane } from '@waxwing/core/session';

import { noteWords } from './brief-words';
import { correctionReason } from './coaching-words';
import { someOf } from './names';
import { fixWords, leftOutWords, savedWords, suggestWords, wrongWords } from './plan-words';
import { heldWords, reasonWords, whyWords } from './reasons';
import { ruledOutWords, swapWords } from './swap-words';
import { doneWords, listed, nextWords, seenWords } from './told-words';

const NAMES = { movement: (id: string) => ({ row: 'Row', squat: 'Goblet squat' })[id] ?? id, client: () => 'Ada' };
const done = { amount: 12, mode: 'reps' as const, effort: 'medium' as const };
const hard = { amount: 6, mode: 'reps' as const, effort: 'hard' as const, faults: ['Heels lift', null] };
const jump = { from: '8 kg', to: '12 kg', share: 0.5 };
const sign = { reps: 12, sets: 2, clean: true, effortAtMost: 'medium' as const, sessions: 2 };
const held = { code: 'open-fault' as const, fault: 'Heels lift' };

type Facts<Code> = Omit<Extract<LineReason, { code: Code }>, 'code'>;
/** Facts for every code, and what is said of them. */
const SAID: { [Code in LineReason['code']]: [Facts<Code>, string] } = {
  'sharp-pain': [{}, 'Sharp pain: this movement is over for today.'],
  'stop-fault': [{ fault: 'Back rounds' }, 'Back rounds: stop the set and sort it out before another rep.'],
  'more-in-it': [{ amount: 5, effort: 'easy', next: 8 }, 'Only 5, felt easy: there is more in it, 8 next.'],
  'dull-pain': [{}, 'Dull pain was reported: nothing goes up today.'],
  unclean: [
    { faults: ['Heels lift', null] },
    'Nothing goes up before a clean set (seen: heels lift, a fault that was open last time).',
  ],
  'once-more': [{ ...done, effort: 'hard', next: 12 }, 'Hard at 12 reps: do it once more, clean.'],
  more: [{ ...done, next: 13, high: 15, loaded: true }, '12, felt medium: 13 next, up to 15 before more weight.'],
  'first-weight': [{ ...done, to: '4 kg', next: 8 }, '12 reps clean, felt medium: now with 4 kg, from 8.'],
  'no-spotter': [{ ...done, kg: 16 }, '12 reps clean, felt medium. No spotter: not above 16 kg, so slow the lowering.'],
  'next-rung': [{ ...done, mode: 'time', amount: 45 }, '45 s clean, felt medium: time for the next rung.'],
  'nothing-heavier': [
    done,
    '12 reps clean, felt medium, and nothing heavier is here: slow the lowering to make it count.',
  ],
  'next-load': [{ ...done, to: 'the blue band' }, '12 reps clean, felt medium: next is the blue band.'],
  heavier: [
    { ...done, to: '9 kg', share: 0.125, next: 8 },
    '12 reps clean, felt medium: up 13 % to 9 kg, from 8 again.',
  ],
  'longer-first': [jump, 'From 8 kg to 12 kg is 50 %: longer first.'],
  earned: [{ ...jump, amount: 15, next: 8 }, 'From 8 kg to 12 kg is 50 %, and 15 reps here earn it: 8 there.'],
  'too-far': [jump, 'From 8 kg to 12 kg is 50 %: too far to reach by reps, so pause at the hard place.'],
  'reps-first': [{ ...jump, reps: 14 }, 'From 8 kg to 12 kg is 50 %: reach 14 reps with 8 kg first.'],
  lighter: [
    { ...hard, to: '4 kg', next: 8 },
    '6 reps, felt hard with heels lift, a fault that was open last time: down to 4 kg for 8, clean.',
  ],
  'without-weight': [{ ...hard, faults: [], next: 8 }, '6 reps, felt hard: without the weight for 8, clean.'],
  'easier-movement': [
    { ...hard, effort: 'failed', faults: [], loaded: true },
    'Failed at 6, and nothing lighter is here: take an easier movement.',
  ],
  'back-to': [{ ...hard, faults: [], next: 6 }, '6 reps, felt hard: back to 6, with good form.'],
  closed: [
    { by: [{ code: 'limit', demand: 'impact', asked: 2 }, { code: 'hurt-before' }] },
    'Closed by a limit on impact; sharp pain when it was last done.',
  ],
  'first-bare': [{}, 'First time: without a weight, to learn it clean.'],
  'first-low': [{}, 'First time: the low end, to learn it clean.'],
  'first-light': [{ to: '4 kg' }, 'First time: 4 kg, a light start, to learn it clean.'],
  'first-lightest': [{ to: '4 kg' }, 'First time: the lightest there is, 4 kg, to learn it clean.'],
  'first-related': [
    { to: '10 kg', kg: 20, movementId: 'squat' },
    'First time: 10 kg, going by 20 kg in goblet squat, to learn it clean.',
  ],
  'first-years': [
    { to: '10 kg', years: 1 },
    'First time: 10 kg, a usual start after 1 year of training, to learn it clean.',
  ],
  'first-after': [
    { to: '10 kg', movementId: 'squat' },
    'First time: 10 kg, a usual start after clean sets of goblet squat, to learn it clean.',
  ],
  uncounted: [{}, 'Done by the clock before and never counted: the low end, counted.'],
  parts: [
    {
      done: [{ kind: 'reps', count: 8, tempo: null }],
      next: [{ kind: 'reps', count: 9, tempo: null }],
      way: 'more',
      to: null,
      held: null,
    },
    'All parts done: next 9 singles.',
  ],
  'test-due': [{ weeks: 5 }, 'Last tested 5 weeks ago.'],
  pieces: [{ done: [10, 10, 10], next: [12, 10, 8], held: null }, '3 × 10 s: next 12 + 10 + 8 s, before 30 s in one.'],
  replaced: [
    { kg: 8, to: '9 kg', amount: 10, mode: 'reps', held },
    '8 kg is not here: 9 kg, and 10 reps feel about the same. Held today: first without “heels lift”.',
  ],
  'only-heavier': [
    { kg: 8, to: '12 kg', held: null },
    'Only 12 kg is here in place of 8 kg, and nothing gets heavier: no spotter.',
  ],
  held: [{ held: { code: 'pain' } }, 'Held today: not after pain today.'],
  ready: [
    { movementId: 'squat', sign },
    'Ready for Goblet squat: 2 sets of 12 clean reps, medium effort or easier, in 2 sessions running.',
  ],
  'after-away': [{ weeks: 5, to: '8 kg', next: 8 }, 'First time after 5 weeks away: 8 kg, 8, and see how it feels.'],
  'same-again': [
    { amount: 12, mode: 'reps', effort: null },
    '12 reps clean: the same again until the sign for the next rung is met.',
  ],
  'effort-unknown': [{}, '(Effort was not noted.)'],
  picked: [{ how: 'rung-ready', care: true }, 'Ready for this rung, with care.'],
  'for-day': [{ day: 'sits' }, 'More of it for somebody who mostly sits.'],
  'kept-from-last-time': [{}, 'Kept from last time.'],
  moved: [{ way: 'up', movementId: 'row' }, 'Up from Row:'],
  instead: [{ movementId: 'row', by: [{ code: 'kit' }] }, 'Instead of Row: kit that is not here.'],
  prepares: [{}, 'Prepares what the session uses.'],
  eases: [{}, 'Eases what the session used.'],
  combines: [{}, 'Both in one rep, after each was done alone.'],
  written: [{ words: 'As it was.' }, 'As it was.'],
};

test('every reason of a line has its sentence', () => {
  for (const [code, [facts, words]] of Object.entries(SAID))
    expect(reasonWords({ code, ...facts } as LineReason, NAMES.movement)).toBe(words);
  // Where nobody noted how it felt, nothing is said of it.
  const silent = { ...done, effort: null };
  expect(reasonWords({ code: 'once-more', ...silent, next: 12 }, NAMES.movement)).toBe(
    '12 reps, how it felt was not noted: do it once more, clean.',
  );
  expect(reasonWords({ code: 'back-to', ...silent, faults: [], next: 10 }, NAMES.movement)).not.toMatch(
    /felt|null|hard/,
  );
  expect(whyWords([{ code: 'kept-from-last-time' }, { code: 'first-low' }], NAMES.movement)).toBe(
    'Kept from last time. First time: the low end, to learn it clean.',
  );
  const sore = ['low-back' as const];
  expect(heldWords({ code: 'ease', ease: { code: 'today', sleep: true, energy: true, sore } })).toBe(
    'poor sleep, little energy, sore low back',
  );
});

test('what is wrong with a plan, what mends it, and what a suggestion leaves out', () => {
  const limit = { code: 'limit' as const, demand: 'hard-grip' as const, asked: 2, reason: 'thumb' };
  const closed: Wrong = { code: 'closed', movementId: 'row', clientId: 'a', because: [limit], near: false };
  expect(wrongWords(closed, NAMES)).toBe(
    'Row is closed for Ada: hard grip: thumb. Nothing near it is open: leave it out, or ask a qualified clinician.',
  );
  expect(wrongWords({ code: 'over', seconds: 270, minutes: 5 }, NAMES)).toBe('4 min 30 s over the 5 minutes.');
  expect(wrongWords({ code: 'push-pull', clientId: 'a', push: 6, pull: 0 }, NAMES)).toBe(
    'Ada: 6 sets of pushing to 0 of pulling.',
  );
  expect(fixWords({ code: 'take-off', sets: 1, lines: 2 }, NAMES)).toBe('Take off 1 set and 2 lines');
  expect(fixWords({ code: 'load', to: '2 × 7 kg', amount: 12, clientId: 'a' }, NAMES)).toBe(
    'Ada: take 2 × 7 kg, 12 reps for the same effort',
  );
  expect(suggestWords({ code: 'short', pattern: 'pull', sets: 1, wanted: 9 }, NAMES)).toBe(
    'Pull: 1 set in four weeks, about 9 would balance the rest',
  );
  expect(suggestWords({ code: 'left-out', clientId: 'a', pattern: 'pull', by: [limit] }, NAMES)).toBe(
    'Ada leaves out pull: closed by hard grip: thumb. What a limit means is for a clinician to say.',
  );
  expect(
    leftOutWords({ clientId: 'a', movementId: 'row', why: [{ code: 'closed', by: [] }], closedBy: [limit] }, NAMES),
  ).toBe('Ada leaves out Row: closed by hard grip: thumb.');
  expect(leftOutWords({ clientId: 'a', movementId: 'row', why: [{ code: 'dull-pain' }], closedBy: [] }, NAMES)).toBe(
    'Ada leaves out Row: dull pain was reported: nothing goes up today.',
  );
});

test('another order says what it saves, and what it is better for where it saves nothing', () => {
  const order: Reordered = {
    blocks: [],
    moved: true,
    better: [],
    saved: { weightChanges: 2, floorTrips: 1, seconds: 44 },
  };
  expect(savedWords(order)).toBe('2 fewer weight changes, 1 fewer trip to the floor, 0:44 min saved.');
  const longer: Reordered = {
    ...order,
    better: ['sameMuscles', 'gripTwice'],
    saved: { weightChanges: 0, floorTrips: 0, seconds: -10 },
  };
  expect(savedWords(longer)).toBe('0:10 min more, but muscles rest better, and the grip rests better.');
  expect(savedWords({ ...order, moved: false })).toBe('This order is already the best.');
});

test('a substitute says how far it is and by what, and a correction what it is known for', () => {
  expect(
    swapWords([
      { code: 'rungs', levels: -2, levers: ['load', 'load', 'depth'] },
      { code: 'also-works', muscles: ['upper-back'] },
      { code: 'needs', option: { needs: [{ item: 'dumbbell', count: 1 }] } },
    ]),
  ).toBe('2 rungs easier: less load, less depth · also works upper back · needs one dumbbell');
  expect(ruledOutWords({ code: 'still-asks', demands: ['impact', 'hard-grip'] })).toBe(
    'still asks for impact and hard grip',
  );
  const facts = { answers: 1, cause: null, named: false, steppedDown: false };
  const style = { kind: 'say' as const, focus: 'inward' as const };
  expect(correctionReason({ style, tried: 1, worked: 1, ...facts })).toBe(
    'Inward words helped 1 of 1 time for this client',
  );
  expect(
    correctionReason({
      style: { kind: 'show', focus: null },
      tried: 0,
      worked: 0,
      answers: 2,
      cause: 'set-up/stance-too-narrow',
      named: false,
      steppedDown: true,
    }),
  ).toBe(
    'Stance too narrow: one cause of both · showing it: not tried with this client yet · lighter steps did not help today',
  );
});

const LIMIT = { demand: 'deep-knee-bend' as const, allowed: 1, reason: 'knee' };
/** A note of every code, and what is said of it. */
const NOTED: { [Code in Note['code']]: [Extract<Note, { code: Code }>, string] } = {
  clearance: [{ code: 'clearance' }, 'Waits for clearance by a clinician: nothing gets harder'],
  hurt: [
    {
      code: 'hurt',
      pain: {
        ids: [],
        place: 'left knee',
        quality: 'sharp',
        movementIds: ['row', 'squat'],
        at: '2030-05-03T10:00:00Z',
      },
    },
    'Sharp pain at the left knee, Fri 3 May (row, goblet squat): ask how it is',
  ],
  limits: [
    { code: 'limits', limits: [LIMIT, { ...LIMIT, demand: 'impact', allowed: 0 }] },
    'Deep knee bend: a little · impact: none',
  ],
  ask: [
    { code: 'ask', condition: 'Worn knee', whom: 'a physiotherapist' },
    'Time to ask a physiotherapist: worn knee, does it still hold?',
  ],
  fault: [{ code: 'fault', movementId: 'squat', fault: 'Heels lift' }, 'Goblet squat: heels lift was still there'],
  ready: [{ code: 'ready', movementId: 'row', to: 'squat' }, 'Ready for goblet squat'],
  left: [{ code: 'left', movementIds: ['row'] }, 'Left over from last time: row'],
  away: [{ code: 'away', days: 29 }, 'Not here for 4 weeks'],
  'first-time': [{ code: 'first-time' }, 'First session'],
};

test('what to know before somebody comes is said in a few words each', () => {
  for (const [note, words] of Object.values(NOTED)) expect(noteWords(note, NAMES.movement)).toBe(words);
});

test('a session is told in three sentences', () => {
  expect(listed(['a', 'b', 'c'])).toBe('a, b and c');
  const squat = {
    id: 'squat',
    name: 'Goblet squat',
    faults: [{ id: 'heels', name: 'Heels lift' }],
  } as unknown as Movement;
  const find = (id: string) => (id === 'squat' ? squat : undefined);
  const set = (kg: number | null, loadLabel: string | null) => ({ amount: 8, kg, loadLabel });
  const entry = (faults: object[], sets: object[]) => ({ id: 'e', movementId: 'squat', sets, faults, corrections: [] });
  const lane = (entries: object[], pains: object[] = []) => ({ entries, pains }) as unknown as Lane;
  const one = lane([entry([], [set(8, '8 kg bell'), set(12, '12 kg bell')])]);
  expect(doneWords(one, find, 38)).toBe('1 movement, 2 sets in 38 min, up to 12 kg bell in the goblet squat.');
  expect(doneWords(lane([]), find, 38)).toBe('No set was done.');
  expect(doneWords(lane([entry([], [set(null, null)])]), find, null)).toBe('1 movement, 1 set so far.');
  expect(seenWords(one, find)).toBe('No fault was marked; nothing hurt.');
  const open = entry([{ faultId: 'heels', open: true }], []);
  const solved = entry([{ faultId: 'heels', open: false }], []);
  const pain = { quality: 'sharp', region: 'knee', side: 'left' };
  expect(seenWords(lane([solved]), find)).toBe('“Heels lift” in the goblet squat was solved; nothing hurt.');
  // What was solved and came back is open.
  expect(seenWords(lane([solved, open], [pain]), find)).toMatch(
    /^Sharp pain: .*knee.*; “Heels lift” in the goblet squat is still open\.$/,
  );
  const notes = [NOTED.clearance[0], NOTED.hurt[0], NOTED.fault[0], NOTED.ready[0]];
  expect(nextWords(notes, [], NAMES.movement)).toBe(
    'Next time: nothing harder before a clinician has cleared it; no row or goblet squat, which hurt; first without “heels lift” in the goblet squat; ready for goblet squat.',
  );
  const dose = { load: null, amount: 8, tempo: '3-0-1-0' };
  const same: NextStep = { kind: 'hold', code: 'same-again', why: [], change: null, dose, to: null };
  expect(nextWords([], [same, { ...same, code: 'held' }], NAMES.movement)).toBe('Next time: go on as it was.');
  for (const other of [
    { ...same, kind: 'dose', code: 'window', change: 'up' },
    { ...same, kind: 'hold', code: 'window', change: 'down' },
    { ...same, kind: 'rung-down', code: 'too-hard' },
    { ...same, code: 'replaced' },
  ] satisfies NextStep[])
    expect(nextWords([], [same, other], NAMES.movement)).toBe('Next time: each movement as its line says.');
});

test('of many names the first few stand in a row', () => {
  expect(someOf([])).toBe('');
  expect(someOf(['Goblet squat'])).toBe('Goblet squat');
  expect(someOf(['Goblet squat', 'Push-up', 'Row', 'Dead bug', 'Plank'])).toBe('Goblet squat, push-up, row and 2 more');
});
