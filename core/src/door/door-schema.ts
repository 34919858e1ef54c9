/** What is told of a studio's door: who is in, who works here, from which devices, and what was done. */
import { z } from '../schema/zod.js';
import { AUDIT_ACTIONS, DOOR_STATES } from './door.js';
import { ROLES } from './roles.js';

/** Whoever asks. */
const visitorSchema = z.strictObject({
  /** Of the account. */
  id: z.string(),
  name: z.string(),
  /** What they may do here: on a shared tablet everybody is an assistant. */
  role: z.enum(ROLES),
  /** Whose clients they see: everybody's, or their own and those that are shared with them. */
  sees: z.enum(['all', 'own']),
});
export type Visitor = z.infer<typeof visitorSchema>;

export const doorSchema = z.strictObject({
  state: z.enum(DOOR_STATES),
  /** Whether this page runs on the machine of the studio itself. */
  here: z.boolean(),
  demo: z.boolean(),
  /** Null while nobody is signed in here. */
  visitor: visitorSchema.nullable(),
  /** Whether this is a paired tablet. */
  tablet: z.boolean(),
  /** A paired tablet that was put down: its PIN opens it again. */
  locked: z.boolean(),
  /** This device was shut out: whatever it keeps must go. */
  shutOut: z.boolean(),
  /** Sent with everything that changes something; null where no session is needed. */
  token: z.string().nullable(),
  /** Seals what this person leaves unsent on a device when they sign out; null where nobody signed in. */
  sealKey: z.string().nullable(),
});
export type Door = z.infer<typeof doorSchema>;

/** Somebody who works here. */
export const accountSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  role: z.enum(ROLES),
  /** Whether they have chosen a passphrase. */
  signsIn: z.boolean(),
  /** ISO; null while they are not shut out. */
  shutOutAt: z.string().nullable(),
});
export type Account = z.infer<typeof accountSchema>;

/** A browser in which somebody is signed in. */
export const deviceSchema = z.strictObject({
  id: z.string(),
  accountId: z.string(),
  accountName: z.string(),
  /** What the device is called, such as `Chrome on Linux`, or as its pairing named it. */
  name: z.string(),
  tablet: z.boolean(),
  createdAt: z.string(),
  lastUsedAt: z.string(),
  /** Whether it is the one that asks. */
  current: z.boolean(),
});
export type Device = z.infer<typeof deviceSchema>;

/** What a device had not sent yet when it was shut out: it waits for the owner's yes. */
export const leftSchema = z.strictObject({
  /** Of the device. */
  id: z.string(),
  device: z.string(),
  accountName: z.string(),
  /** Whom the taps are of. */
  clientNames: z.array(z.string()),
  taps: z.int().min(1),
  /** ISO; when the latest of them came. */
  leftAt: z.string(),
});
export type Left = z.infer<typeof leftSchema>;

/** What became of such taps: one that does not fit into its session is named, and stays until it is thrown away. */
export const takenSchema = z.strictObject({ taken: z.int(), refused: z.int(), why: z.string().nullable() });
export type Taken = z.infer<typeof takenSchema>;

/** A key that a tablet is paired with: once, and soon. */
export const pairingSchema = z.strictObject({
  endsAt: z.string(),
  /** The address to open, with the key in it. */
  address: z.string(),
  /** The same as a picture: SVG. */
  code: z.string(),
});
export type Pairing = z.infer<typeof pairingSchema>;

/** What was done, in the order in which it was. */
export const auditEntrySchema = z.strictObject({
  place: z.int().min(1),
  at: z.string(),
  /** Empty for somebody unknown. */
  accountName: z.string(),
  device: z.string(),
  action: z.enum(AUDIT_ACTIONS),
  clientId: z.string().nullable(),
  /** Empty where the client is erased. */
  clientName: z.string(),
  /** Names of fields or things, never what is in them. */
  fields: z.array(z.string()),
});
export type AuditEntry = z.infer<typeof auditEntrySchema>;

/** For how many days something is kept. */
export const keepsSchema = z.strictObject({
  auditDays: z.int(),
  /** Ids of deleted people and sessions, by which devices learn of it. */
  erasedDays: z.int(),
  /** Sessions with all that they taught; null for ever. */
  sessionDays: z.int().nullable(),
});
export type Keeps = z.infer<typeof keepsSchema>;
