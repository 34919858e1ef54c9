/** What was done, as it is read in a list. */
import type { AuditAction, Role } from '@waxwing/core/door';

export const AUDIT_WORDS: Record<AuditAction, string> = {
  'signed-in': 'signed in',
  'sign-in-failed': 'did not get in',
  'signed-out': 'signed out',
  recovered: 'signed in with a code',
  'passphrase-changed': 'chose a new passphrase',
  'door-changed': 'changed who must sign in',
  'account-added': 'added somebody who works here',
  'account-changed': 'changed somebody’s role',
  'device-paired': 'paired a tablet',
  'device-ended': 'shut a device out',
  'client-read': 'read',
  'client-changed': 'changed',
  'client-exported': 'exported',
  'client-erased': 'deleted for good',
  'client-restored': 'brought back',
  'client-shared': 'said who sees them',
  'audit-exported': 'exported this list',
  'keeps-changed': 'changed how long things are kept',
  'sessions-let-go': 'let old sessions go',
};

/** Who did what nobody is named for: what is done by itself, or by somebody who did not say who they are. */
export const whoDid = (action: AuditAction): string => (action === 'sessions-let-go' ? 'Waxwing' : 'Somebody unknown');

/** Names of fields as they are read. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  healthNote: 'health note',
  note: 'notes',
  readiness: 'questions before starting',
  today: 'check of the day',
  limits: 'limits',
  touchConsentOn: 'consent to touch',
  filmConsentOn: 'consent to film',
};

export const fieldWords = (field: string): string => FIELD_WORDS[field] ?? field;

export const ROLE_WORDS: Record<Role, string> = {
  owner: 'Owner',
  trainer: 'Trainer',
  assistant: 'Assistant',
};

export const ROLE_MEANS: Record<Role, string> = {
  owner: 'everything, and who works here',
  trainer: 'their own clients, and those shared with them',
  assistant: 'the library, and sessions with clients shared with them; no health notes, no export, no deletion',
};
