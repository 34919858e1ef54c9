/** What was done, as it is read in a list. */
import type { AuditAction, Role } from '@waxwing/core/door';

import { say } from './say';

export const AUDIT_WORDS: Record<AuditAction, string> = {
  'signed-in': say.door.signedIn,
  'sign-in-failed': say.door.didNotGetIn,
  'signed-out': say.door.signedOut,
  recovered: say.door.signedInWithACode,
  'passphrase-changed': say.door.choseANewPassphrase,
  'door-changed': say.door.changedWhoMustSignIn,
  'account-added': say.door.addedSomebodyWhoWorksHere,
  'account-changed': say.door.changedSomebodysRole,
  'device-paired': say.door.pairedATablet,
  'device-ended': say.door.shutADeviceOut,
  'client-read': say.door.read,
  'client-changed': say.door.changed,
  'client-exported': say.door.exported,
  'client-erased': say.door.deletedForGood,
  'client-restored': say.door.broughtBack,
  'client-shared': say.door.saidWhoSeesThem,
  'audit-exported': say.door.exportedThisList,
  'keeps-changed': say.door.changedHowLongThingsAre,
  'sessions-let-go': say.door.letOldSessionsGo,
  restored: say.door.broughtABackupBack,
  'copy-removed': say.door.removedACopy,
  'taps-taken-in': say.door.tookLeftTapsIn,
  'taps-thrown-away': say.door.threwLeftTapsAway,
};

const BY_ITSELF: ReadonlySet<AuditAction> = new Set(['sessions-let-go', 'restored', 'copy-removed']);

/** Who did what nobody is named for: what is done by itself, or by somebody who did not say who they are. */
export const whoDid = (action: AuditAction): string => (BY_ITSELF.has(action) ? 'Waxwing' : say.door.somebodyUnknown);

/** Names of fields as they are read. */
const FIELD_WORDS: Readonly<Record<string, string>> = say.door.fieldWords;

export const fieldWords = (field: string): string => FIELD_WORDS[field] ?? field;

export const ROLE_WORDS: Record<Role, string> = say.door.roleWords;

export const ROLE_MEANS: Record<Role, string> = say.door.roleMeans;
