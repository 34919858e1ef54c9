/**
 * What a movement is: the one schema that files, requests and the stored library are checked against.
 * Cue, fault and correction ids are local to their movement; `ids.ts` makes the library-wide form.
 */
import { SLUG, slug, text, words } from '../schema/atoms.js';
import { z } from '../schema/zod.js';
import { RESERVED_IDS } from './ids.js';
import {
  CAUSE_KINDS,
  CHANNELS,
  CORRECTION_KINDS,
  DEMANDS,
  DIRECTIONS,
  DOSE_MODES,
  EFFORTS,
  FOCUSES,
  KIT_ITEMS,
  LEVERS,
  MUSCLES,
  PATTERNS,
  PHASES,
  PLANES,
  POSITIONS,
  PROGRESSIONS,
  PURPOSES,
  ROLES,
  SET_UPS,
  SEVERITIES,
  SIDES,
  SPACES,
} from './vocabulary.js';

/** 0 none, 1 a little, 2 clearly, 3 as much as this demand can be. */
const amount = z.int().min(0, 'must be 0 to 3').max(3, 'must be 0 to 3');
const chance = z.number().min(0, 'must be 0 to 1').max(1, 'must be 0 to 1');
const count = (max: number) => z.int().min(1).max(max);

export const cause = z
  .string()
  .regex(
    new RegExp(`^(?:${CAUSE_KINDS.join('|')})/${SLUG}$`),
    `must be a kind (${CAUSE_KINDS.join(', ')}), a slash and a few hyphenated words`,
  );

/** `rule/option`: belongs to one school only. */
export const ruleTag = z
  .string()
  .regex(new RegExp(`^${SLUG}/${SLUG}$`), 'must be a house rule, a slash and one of its options');

export const cueSchema = z.strictObject({
  id: slug,
  phase: z.enum(PHASES),
  text: text(60),
  focus: z.enum(FOCUSES),
  channel: z.enum(CHANNELS),
  addresses: z.array(slug).default([]),
  /** What must be in the hands or underfoot for it to be true; without it, it is true for every option of kit. */
  for: z.strictObject({ kit: z.array(z.enum(KIT_ITEMS)).min(1, 'needs at least one thing') }).optional(),
  houseRule: ruleTag.optional(),
});

export const correctionSchema = z
  .strictObject({
    id: slug,
    kind: z.enum(CORRECTION_KINDS),
    /** Spoken to the client as it stands. */
    say: text(200).optional(),
    /** For the trainer: what to set up, show or change. */
    do: text(200).optional(),
    cueId: slug.optional(),
    swapTo: slug.optional(),
    causes: z.array(cause).default([]),
  })
  .refine(
    (one) => one.say !== undefined || one.do !== undefined || one.cueId !== undefined || one.swapTo !== undefined,
    {
      path: ['say'],
      message: 'needs words: what to say, what to do, or a cue',
    },
  );

/** How likely it is to be seen from each side. */
export const viewsSchema = z.strictObject({
  front: chance.default(0),
  side: chance.default(0),
  back: chance.default(0),
  oblique: chance.default(0),
});

export const faultSchema = z.strictObject({
  id: slug,
  /** Of the vocabulary of fault kinds; where it is not said, the name tells it if it is plain. */
  kind: slug.optional(),
  name: text(60),
  looksLike: text(200),
  phase: z.enum(PHASES),
  severity: z.enum(SEVERITIES),
  views: viewsSchema,
  causes: z.array(cause).min(1, 'needs at least one cause'),
  corrections: z.array(correctionSchema).min(1, 'needs at least one correction'),
  houseRule: ruleTag.optional(),
});

export const readyWhenSchema = z
  .strictObject({
    reps: count(200).optional(),
    seconds: count(3600).optional(),
    metres: count(2000).optional(),
    sets: count(20),
    clean: z.boolean(),
    effortAtMost: z.enum(EFFORTS),
    sessions: count(20),
  })
  .refine(
    (r) => [r.reps, r.seconds, r.metres].filter((amount) => amount !== undefined).length === 1,
    'needs one of reps, seconds and metres',
  );

export const backWhenSchema = z
  .strictObject({
    repsBelow: count(200).optional(),
    secondsBelow: count(3600).optional(),
    faultsAtLeast: z.enum(SEVERITIES).optional(),
    sets: count(20),
  })
  .refine(
    (b) => b.repsBelow !== undefined || b.secondsBelow !== undefined || b.faultsAtLeast !== undefined,
    'needs at least one sign: repsBelow, secondsBelow or faultsAtLeast',
  );

export const linkSchema = z.strictObject({
  to: slug,
  direction: z.enum(DIRECTIONS),
  lever: z.enum(LEVERS),
  readyWhen: readyWhenSchema.optional(),
  backWhen: backWhenSchema.optional(),
});

const windowSchema = z
  .strictObject({
    low: count(1000),
    high: count(1000),
    sets: z.tuple([count(20), count(20)]),
    rest: z.int().min(0).max(600),
  })
  .refine((w) => w.low <= w.high, { path: ['low'], message: 'must not be above high' })
  .refine((w) => w.sets[0] <= w.sets[1], { path: ['sets'], message: 'must go from fewer to more' });

const kitNeedSchema = z.strictObject({ item: z.enum(KIT_ITEMS), count: count(10).default(1) });

export const demandsSchema = z.partialRecord(z.enum(DEMANDS), amount);

/** One way to equip a movement: everything that it needs, none of it for the body alone. */
export const kitOptionSchema = z.strictObject({
  needs: z.array(kitNeedSchema).max(10, 'has at most 10 things'),
  /** Where it asks for more or less than the movement does otherwise. */
  demands: demandsSchema.optional(),
  /** Kilograms in all above which this option is the wrong one. */
  mostKg: z.number().min(0.5, 'must be 0.5 to 1000').max(1000, 'must be 0.5 to 1000').optional(),
});

/** What should be felt, and what means stop. */
const feelSchema = z.strictObject({ expected: text(160), stop: text(160) });

/** Its fields, each by itself. */
export const movementShape = z.strictObject({
  id: slug.refine((id) => !RESERVED_IDS.includes(id), 'is a word that the library keeps for itself'),
  name: text(80),
  aliases: z.array(text(80)).default([]),
  families: z.array(slug).min(1, 'needs at least one family'),
  pattern: z.enum(PATTERNS),
  role: z.enum(ROLES),
  position: z.enum(POSITIONS),
  sides: z.enum(SIDES),
  planes: z.array(z.enum(PLANES)).min(1, 'needs at least one plane'),
  muscles: z.strictObject({
    prime: z.array(z.enum(MUSCLES)).min(1, 'needs at least one muscle'),
    assist: z.array(z.enum(MUSCLES)).default([]),
  }),
  /** Any one option will do; within an option every need must be met. No options: needs nothing. */
  kit: z.array(kitOptionSchema).max(20, 'has at most 20 options').default([]),
  space: z.enum(SPACES),
  demands: demandsSchema.default({}),
  dose: z.strictObject({
    mode: z.enum(DOSE_MODES),
    /** Seconds to lower, pause, rise, pause. */
    tempo: z
      .string()
      .regex(/^\d{1,2}-\d{1,2}-\d{1,2}-\d{1,2}$/, 'must be lower-pause-rise-pause in seconds, such as 3-1-1-0'),
    windows: z
      .partialRecord(z.enum(PURPOSES), windowSchema)
      .refine((w) => Object.keys(w).length > 0, 'needs at least one window'),
  }),
  breath: text(160),
  /** Two to four plain sentences for somebody alone; empty until they are written. */
  how: words(600).default(''),
  /** What is to be found and remembered for each client. */
  setUp: z.array(z.enum(SET_UPS)).default([]),
  /** Movements to be owned first, beside what the ladder says. */
  precursors: z.array(slug).max(8, 'has at most 8 movements').default([]),
  feel: feelSchema.optional(),
  progression: z.enum(PROGRESSIONS).default('yes'),
  /** The movement whose figure shows this one too, where it has none of its own. */
  drawnAs: slug.optional(),
  phases: z.array(z.enum(PHASES)).min(2, 'needs at least two phases'),
  cues: z.array(cueSchema),
  faults: z.array(faultSchema),
  links: z.array(linkSchema).default([]),
  cautions: z.array(text(240)).default([]),
  /** Conditions that its cautions rule it out for. */
  notFor: z.array(slug).max(60, 'has at most 60 conditions').default([]),
  /** Conditions of the strict kind that a person marked it as suitable for. */
  suits: z.array(slug).max(60, 'has at most 60 conditions').default([]),
});

/** Adds one issue for each id that an earlier entry of the same list already has. */
function refuseRepeats(
  entries: readonly { id: string }[],
  path: (string | number)[],
  report: (path: (string | number)[], message: string) => void,
): void {
  const seen = new Set<string>();
  entries.forEach((entry, i) => {
    if (seen.has(entry.id)) report([...path, i, 'id'], `"${entry.id}" is used twice`);
    seen.add(entry.id);
  });
}

export const movementSchema = movementShape.superRefine((movement, context) => {
  const report = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
  const phases = new Set(movement.phases);
  const cueIds = new Set(movement.cues.map((cue) => cue.id));
  const faultIds = new Set(movement.faults.map((fault) => fault.id));

  refuseRepeats(movement.cues, ['cues'], report);
  refuseRepeats(movement.faults, ['faults'], report);
  movement.cues.forEach((cue, i) => {
    if (!phases.has(cue.phase)) report(['cues', i, 'phase'], `"${cue.phase}" is not one of this movement's phases`);
    cue.addresses.forEach((faultId, j) => {
      if (!faultIds.has(faultId)) report(['cues', i, 'addresses', j], `no fault "${faultId}" in this movement`);
    });
  });
  movement.faults.forEach((fault, i) => {
    if (!phases.has(fault.phase))
      report(['faults', i, 'phase'], `"${fault.phase}" is not one of this movement's phases`);
    if (Object.values(fault.views).every((v) => v === 0))
      report(['faults', i, 'views'], 'must show from at least one side');
    refuseRepeats(fault.corrections, ['faults', i, 'corrections'], report);
    fault.corrections.forEach((correction, j) => {
      const at = ['faults', i, 'corrections', j];
      if (correction.cueId !== undefined && !cueIds.has(correction.cueId))
        report([...at, 'cueId'], `no cue "${correction.cueId}" in this movement`);
      if (correction.kind === 'swap' && correction.swapTo === undefined)
        report([...at, 'swapTo'], 'a swap names the movement to go to');
      if (correction.kind !== 'swap' && correction.swapTo !== undefined)
        report([...at, 'swapTo'], 'only a swap goes to another movement');
    });
    // What ends the set comes first where it must: nobody reads further then.
    const first = fault.severity === 'stop' && fault.corrections[0]?.kind === 'stop' ? 1 : 0;
    const steps = fault.corrections.map((c) => CORRECTION_KINDS.indexOf(c.kind));
    const drop = steps.findIndex((step, j) => j > first && step < (steps[j - 1] ?? 0));
    if (drop > 0) report(['faults', i, 'corrections', drop, 'kind'], 'is less intrusive than the correction before it');
  });
  const links = new Set<string>();
  movement.precursors.forEach((id, i) => {
    if (id === movement.id) report(['precursors', i], 'a movement cannot come before itself');
  });
  movement.links.forEach((link, i) => {
    if (link.to === movement.id) report(['links', i, 'to'], 'a movement cannot link to itself');
    if (links.has(link.to)) report(['links', i, 'to'], `"${link.to}" is linked twice`);
    links.add(link.to);
  });
});

const version = z.int('must be a whole number from 1').min(1, 'must be a whole number from 1');

/** Parts of a movement, and the version that they were changed from. */
export const movementChangeSchema = movementShape.partial().extend({ version });

/** What is looked at of such a change before it is known what it changes: the whole is checked once it is put together. */
export const madeFromSchema = z.looseObject({ version });
export type MadeFrom = z.infer<typeof madeFromSchema>;

export interface Movement extends z.infer<typeof movementSchema> {}
/** As somebody writes it: what is usual may be left out. */
export interface MovementInput extends z.input<typeof movementSchema> {}
export interface MovementChange extends z.input<typeof movementChangeSchema> {}
export type Cue = z.infer<typeof cueSchema>;
export type Fault = z.infer<typeof faultSchema>;
export type Correction = z.infer<typeof correctionSchema>;
export type Link = z.infer<typeof linkSchema>;
export type ReadyWhen = z.infer<typeof readyWhenSchema>;
export type BackWhen = z.infer<typeof backWhenSchema>;
export type KitNeed = z.infer<typeof kitNeedSchema>;
export type KitOption = z.infer<typeof kitOptionSchema>;
export type DoseWindow = z.infer<typeof windowSchema>;
