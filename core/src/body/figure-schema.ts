/** The schema of figures and postures, and what must hold between them. Kept apart from what draws: a page that draws has no need to check. */
import { DEMANDS, VIEWS } from '../movement/vocabulary.js';
import { called, slug } from '../schema/atoms.js';
import { type Problem, problemsOf } from '../schema/problem.js';
import { z } from '../schema/zod.js';
import { CONTACTS, LIMB_CONTACTS, TRUNK_CONTACTS } from './contacts.js';
import {
  type Figure,
  type FigureKey,
  type FigureLibrary,
  HELD_IN,
  HELD_ITEMS,
  type Layers,
  layersOf,
  LINE_ITEMS,
  PLURALS,
  PROP_ITEMS,
} from './figure.js';
import { WRITTEN_ANGLES } from './skeleton.js';

const angles = z.record(
  z.string().refine((name) => WRITTEN_ANGLES.has(name), 'is not an angle of the body'),
  z.number().min(-200).max(200),
);
export const layersSchema = z.array(z.union([slug, angles])).min(1, 'needs at least one layer');

const contactName = z.string().refine((name) => name in PLURALS || (CONTACTS as readonly string[]).includes(name), {
  message: `must be one of ${Object.keys(PLURALS).join(', ')}, left. or right. ${LIMB_CONTACTS.join(', ')}, ${TRUNK_CONTACTS.join(', ')}`,
});
const place = z.tuple([z.number(), z.number(), z.number()]);
/** What the body rests on: a height in centimetres, a place in the room such as a rail, or `fixed` where it is, as on a wall or a strap. */
const contacts = z.record(contactName, z.union([z.number().min(0).max(250), place, z.literal('fixed')]));

/** `lift`: in the air, the root this much above where it began; `ahead`: put down, or in the air, this much further forward. */
export const keySchema = z.union([
  layersSchema,
  z.strictObject({
    pose: layersSchema,
    contacts: contacts.optional(),
    lift: z.number().min(-60).max(80).default(0),
    ahead: z.number().min(-150).max(150).default(0),
  }),
]);

/** A load and what carries it: each hand, one, between both, across both, or another part of the body. */
const held = z.strictObject({
  item: z.enum(HELD_ITEMS),
  in: z.enum(HELD_IN),
});
/** A band, strap or cable from a fixed place (centimetres from where the body starts) or from the feet to hands or knees. */
const line = z.strictObject({
  item: z.enum(LINE_ITEMS),
  from: z.union([place, z.enum(['feet', 'right-foot', 'hands', 'knees'])]),
  to: z.enum(['hands', 'left', 'right', 'knees', 'feet', 'head']),
});
/** Furniture: under or at a contact, or at a place of its own. */
const prop = z.strictObject({
  item: z.enum(PROP_ITEMS),
  at: z.union([contactName, place]),
  height: z.number().min(0).max(250).default(0),
});

const fault = z.strictObject({
  /** Changes of angles, in degrees, at full amount. */
  set: angles.default({}),
  at: z.enum(['start', 'end', 'all']).default('end'),
  /** Hands and feet are put down elsewhere from the start, where they otherwise keep the places of the clean rep. */
  stance: z.boolean().default(false),
  /** Contacts that the fault gives up. */
  free: z.array(contactName).default([]),
  /** What is pointed at. */
  mark: z.enum(['head', 'neck', 'shoulders', 'elbows', 'wrists', 'upper-back', 'low-back', 'hips', 'knees', 'ankles']),
});

export const figureSchema = z
  .strictObject({
    view: z.enum(VIEWS).default('side'),
    /** A rep goes from start to end and back; a hold has only a start; a cycle goes round its own postures. */
    start: layersSchema,
    via: z.array(keySchema).default([]),
    end: keySchema.optional(),
    back: z.array(keySchema).optional(),
    cycle: z.array(keySchema).min(1).optional(),
    /** A cycle goes on with the mirror images of its postures: what one side did the other side does. */
    alternates: z.boolean().default(false),
    /** Seconds of one step of a cycle. */
    step: z.number().min(0.2).max(5).default(0.7),
    /** Which half of the tempo comes first. */
    first: z.enum(['lower', 'rise']).default('lower'),
    contacts: contacts.default({ feet: 0 }),
    /** Contacts that carry the root; the first ones of `contacts` unless said. */
    base: z.array(contactName).min(1).optional(),
    /** Contacts that slide along what they rest on instead of staying put. */
    glides: z.array(contactName).default([]),
    /** Height of the root at the start, for a body that hangs or leans on fixed things alone. */
    lift: z.number().min(0).max(200).default(0),
    holds: z.array(held).default([]),
    lines: z.array(line).default([]),
    props: z.array(prop).default([]),
    /** Somebody who helps and keeps still: how, and where the middle of their hips is. */
    partner: z.strictObject({ pose: layersSchema, at: place }).optional(),
    /** The joint whose angle tells the most. */
    joint: z.enum(['knee', 'hip', 'elbow', 'shoulder', 'ankle', 'trunk']).optional(),
    /** What can be seen in the figure and is not asked of whoever does it, each with the reason. */
    notAsked: z.partialRecord(z.enum(DEMANDS), called(160)).optional(),
    faults: z.record(slug, fault).default({}),
  })
  .refine((figure) => !(figure.end && figure.cycle), 'has an end or a cycle, not both');

export const posesSchema = z.record(slug, angles);

type Read<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** Reads postures of unknown shape. */
export function checkPoses(input: unknown): Read<FigureLibrary['poses']> {
  const result = posesSchema.safeParse(input, { reportInput: true });
  return result.success ? { ok: true, value: result.data } : { ok: false, problems: problemsOf(result.error) };
}

/** Reads figures of unknown shape; every posture that they name must exist. */
export function checkFigures(input: unknown, poses: FigureLibrary['poses']): Read<Record<string, Figure>> {
  const result = z.record(slug, figureSchema).safeParse(input, { reportInput: true });
  if (!result.success) return { ok: false, problems: problemsOf(result.error) };
  const problems = Object.entries(result.data).flatMap(([id, figure]) =>
    everyLayer(figure).flatMap(({ path, layer }): Problem[] =>
      typeof layer === 'string' && !(layer in poses)
        ? [{ path: `${id}.${path}`, message: `no posture "${layer}"` }]
        : [],
    ),
  );
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: result.data };
}

function everyLayer(figure: Figure): { path: string; layer: Layers[number] }[] {
  const keys: [string, FigureKey][] = [
    ['start', figure.start],
    ...(figure.partner ? [['partner.pose', figure.partner.pose] as [string, FigureKey]] : []),
    ...figure.via.map((one, i): [string, FigureKey] => [`via[${i}]`, one]),
    ...(figure.end ? [['end', figure.end] as [string, FigureKey]] : []),
    ...(figure.back ?? []).map((one, i): [string, FigureKey] => [`back[${i}]`, one]),
    ...(figure.cycle ?? []).map((one, i): [string, FigureKey] => [`cycle[${i}]`, one]),
  ];
  return keys.flatMap(([path, one]) => layersOf(one).map((layer, i) => ({ path: `${path}[${i}]`, layer })));
}
