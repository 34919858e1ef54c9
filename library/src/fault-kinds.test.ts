/** How trainers name what they see: the kind that they mean comes first. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import {
  buildFinding,
  buildKindFinder,
  checkFaultKinds,
  type FaultKind,
  type KindFinder,
  type Movement,
  searchTextOf,
} from '@waxwing/core/movement';
import { join } from 'node:path';
import { loadFaultKinds, loadLibrary } from './index.js';

/** Written as it is said on the floor; not taken from the vocabulary. */
const SAID: readonly (readonly [string, string])[] = [
  ['knees caving', 'knees-in'],
  ['knees collapsing in', 'knees-in'],
  ['knes in', 'knees-in'],
  ['her knees knock on the way up', 'knees-in'],
  ['knee diving inwards', 'knees-in'],
  ['knee falls inside', 'knees-in'],
  ['valgus knees', 'knees-in'],
  ['knees bowing out', 'knees-out'],
  ['knees splaying apart', 'knees-out'],
  ['knee way past the toes', 'knee-past-toes'],
  ['knees too far forward', 'knee-past-toes'],
  ['shooting the knees forward', 'knee-past-toes'],
  ['locking the knees', 'knees-snap-straight'],
  ['elbows snapping straight', 'knees-snap-straight'],
  ['hyperextending the elbows', 'knees-snap-straight'],
  ['wobbly knee', 'knee-wobbles'],
  ['knee shaking about', 'knee-wobbles'],
  ['knee hits the floor', 'knee-bangs'],
  ['back knee slamming into the ground', 'knee-bangs'],
  ['heels coming up', 'heels-lift'],
  ['heals lift', 'heels-lift'],
  ['heel popping off the floor', 'heels-lift'],
  ['up on his toes', 'heels-lift'],
  ['weight in the toes', 'heels-lift'],
  ['feet rolling in', 'foot-rolls'],
  ['arches collapsing in the foot', 'foot-rolls'],
  ['ankle rolling outwards', 'foot-rolls'],
  ['duck footed', 'feet-turn-out'],
  ['toes pointing out', 'feet-turn-out'],
  ['foot turning out', 'feet-turn-out'],
  ['feet on a tightrope', 'feet-on-line'],
  ['crossing the feet', 'feet-on-line'],
  ['narrow stance', 'stance-wrong'],
  ['feet too close together', 'stance-wrong'],
  ['feet too wide apart', 'stance-wrong'],
  ['tiny steps', 'step-short'],
  ['stride too short', 'step-short'],
  ['shifting to one side', 'weight-shifts'],
  ['hip shifts right', 'weight-shifts'],
  ['favouring the left leg', 'weight-shifts'],
  ['butt tucks', 'pelvis-tucks'],
  ['but wink', 'pelvis-tucks'],
  ['tailbone tucking under at the bottom', 'pelvis-tucks'],
  ['bum tucks under', 'pelvis-tucks'],
  ['pelvis rolling under', 'pelvis-tucks'],
  ['lower back rounds', 'low-back-rounds'],
  ['rounding the spine', 'low-back-rounds'],
  ['back rounding', 'low-back-rounds'],
  ['cat back', 'low-back-rounds'],
  ['lumbar flexion', 'low-back-rounds'],
  ['slouching', 'low-back-rounds'],
  ['chest caving', 'upper-back-rounds'],
  ['upper back rounding', 'upper-back-rounds'],
  ['arching the back', 'low-back-arches'],
  ['lower back coming off the floor', 'low-back-arches'],
  ['over arched back', 'low-back-arches'],
  ['leaning back in the press', 'low-back-arches'],
  ['flaring ribs', 'ribs-flare'],
  ['ribs popping out', 'ribs-flare'],
  ['leaning too far forward', 'torso-tips'],
  ['chest dropping forward', 'torso-tips'],
  ['folding over in the squat', 'torso-tips'],
  ['hips shoot up first', 'hips-rise-first'],
  ['bum rising before the chest', 'hips-rise-first'],
  ['standing up out of the row', 'trunk-upright'],
  ['squatting the deadlift', 'squats-hinge'],
  ['not hinging at the hips', 'squats-hinge'],
  ['sagging hips', 'hips-sag'],
  ['belly sagging in plank', 'hips-sag'],
  ['hips dropping in the plank', 'hips-sag'],
  ['bum in the air', 'hips-pike'],
  ['hips too high in plank', 'hips-pike'],
  ['piking', 'hips-pike'],
  ['not finishing the hips', 'hips-low'],
  ['no lockout at the hips', 'hips-low'],
  ['hips rotating', 'hips-turn'],
  ['pelvis twisting', 'hips-turn'],
  ['hip dropping on one side', 'hip-drops'],
  ['pelvis not level', 'hip-drops'],
  ['torso twisting', 'trunk-turns'],
  ['rotating the trunk', 'trunk-turns'],
  ['leaning sideways', 'trunk-leans-side'],
  ['tipping to the side', 'trunk-leans-side'],
  ['using momentum', 'body-sways'],
  ['swinging the dumbbells', 'body-sways'],
  ['cheating the curl up', 'body-sways'],
  ['wobbly', 'balance-lost'],
  ['losing balance', 'balance-lost'],
  ['unsteady on one leg', 'balance-lost'],
  ['shoulders up at the ears', 'shoulders-shrug'],
  ['shrugging', 'shoulders-shrug'],
  ['traps taking over', 'shoulders-shrug'],
  ['sinking into the shoulders', 'shoulders-sink'],
  ['shoulders rounding forward', 'shoulders-forward'],
  ['shoulder rolling forward', 'shoulders-forward'],
  ['winging scapula', 'blades-wing'],
  ['shoulder blades not squeezing', 'blades-idle'],
  ['pulling with just the arms', 'blades-idle'],
  ['elbows flaring', 'elbows-flare'],
  ['elbows sticking out', 'elbows-flare'],
  ['elbows drifting forward', 'elbows-drift'],
  ['bending the elbows', 'elbows-bend'],
  ['elbows dropping', 'elbows-drop'],
  ['wrists bending back', 'wrists-bend'],
  ['grip slipping', 'grip-fails'],
  ['hands too wide', 'hands-placed'],
  ['looking up', 'neck-cranes'],
  ['head hanging', 'neck-cranes'],
  ['chin poking forward', 'neck-cranes'],
  ['yanking on the neck', 'neck-pulled'],
  ['not going deep enough', 'range-short'],
  ['half reps', 'range-short'],
  ['dropping too fast', 'drops'],
  ['no control lowering', 'drops'],
  ['rushing', 'too-fast'],
  ['bouncing out of the bottom', 'bounces'],
  ['landing loud', 'lands-hard'],
  ['bar drifting forward', 'weight-drifts'],
  ['holding her breath', 'breath-held'],
  ['one arm lagging behind', 'one-side-less'],
];

let kinds: FaultKind[];
let library: Movement[];
let finder: KindFinder;
beforeAll(() => {
  kinds = loadFaultKinds(join(import.meta.dirname, '../fault-kinds.yaml'));
  library = loadLibrary(join(import.meta.dirname, '../movements'));
  finder = buildKindFinder(kinds);
});

const kindsOf = (words: string): string[] => finder.find(words).map(({ kind }) => kind.id);

describe('what trainers say', () => {
  test('leads to the kind that they mean: of 120 at least 115 first, all among the first three', () => {
    expect(SAID).toHaveLength(120);
    const known = new Set(kinds.map(({ id }) => id));
    const wrong = SAID.filter(([words, id]) => kindsOf(words)[0] !== id);
    expect(SAID.filter(([, id]) => !known.has(id))).toEqual([]);
    expect(wrong.map(([words]) => [words, ...kindsOf(words).slice(0, 3)]).slice(5)).toEqual([]);
    for (const [words, id] of wrong) expect([words, ...kindsOf(words).slice(0, 3)]).toContain(id);
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
    // A name stays a name.
    expect(finding.movements('goblet squat').ids[0]).toBe('goblet-squat');
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
