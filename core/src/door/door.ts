/** What is told of a studio's door: who is in, who works here, and from which devices. */
import type { Role, Visitor } from './roles.js';

/**
 * `unset` nobody has said yet who runs the studio; `open` no sign-in on this machine itself, by the owner's choice; `closed` everybody signs in.
 */
export type DoorState = 'unset' | 'open' | 'closed';

export interface Door {
  state: DoorState;
  /** Whether this page runs on the machine of the studio itself. */
  here: boolean;
  demo: boolean;
  /** Null while nobody is signed in here. */
  visitor: Visitor | null;
  /** Whether this is a paired tablet. */
  tablet: boolean;
  /** A paired tablet that was put down: its PIN opens it again. */
  locked: boolean;
  /** This device was shut out: whatever it keeps must go. */
  shutOut: boolean;
  /** Sent with everything that changes something; null where no session is needed. */
  token: string | null;
  /** Seals what this person leaves unsent on a device when they sign out; null where nobody signed in. */
  sealKey: string | null;
}

/** Somebody who works here. */
export interface Account {
  id: string;
  name: string;
  role: Role;
  /** Whether they have chosen a passphrase. */
  signsIn: boolean;
  /** ISO; null while they are not shut out. */
  shutOutAt: string | null;
}

/** A browser in which somebody is signed in. */
export interface Device {
  id: string;
  accountId: string;
  accountName: string;
  /** What the device is called, such as `Chrome on Linux`, or as its pairing named it. */
  name: string;
  tablet: boolean;
  createdAt: string;
  lastUsedAt: string;
  /** Whether it is the one that asks. */
  current: boolean;
}

/** A key that a tablet is paired with: once, and soon. */
export interface Pairing {
  endsAt: string;
  /** The address to open, with the key in it. */
  address: string;
  /** The same as a picture: SVG. */
  code: string;
}

/** What was done, in the order in which it was. */
export interface AuditEntry {
  place: number;
  at: string;
  /** Empty for somebody unknown. */
  accountName: string;
  device: string;
  action: AuditAction;
  clientId: string | null;
  /** Empty where the client is erased. */
  clientName: string;
  /** Names of fields or things, never what is in them. */
  fields: string[];
}

/** For how many days something is kept. */
export interface Keeps {
  auditDays: number;
  /** Ids of deleted people and sessions, by which devices learn of it. */
  erasedDays: number;
}

export const AUDIT_ACTIONS = [
  'signed-in',
  'sign-in-failed',
  'signed-out',
  'recovered',
  'passphrase-changed',
  'door-changed',
  'account-added',
  'account-changed',
  'device-paired',
  'device-ended',
  'client-read',
  'client-changed',
  'client-exported',
  'client-erased',
  'client-restored',
  'client-shared',
  'audit-exported',
] as const;
export type AuditAction = (typeof AUDIT_ACTIONS)[number];

export const PASSPHRASE_LEAST = 10;
export const PIN_DIGITS = { least: 4, most: 8 } as const;
