/** How a studio's door can stand, and what is noted of it. */

/**
 * `unset` nobody has said yet who runs the studio; `open` no sign-in on this machine itself, by the owner's choice; `closed` everybody signs in.
 */
export const DOOR_STATES = ['unset', 'open', 'closed'] as const;
export type DoorState = (typeof DOOR_STATES)[number];

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
  'keeps-changed',
  'sessions-let-go',
  'restored',
  'copy-removed',
  'taps-taken-in',
  'taps-thrown-away',
] as const;
export type AuditAction = (typeof AUDIT_ACTIONS)[number];

export const PASSPHRASE_LEAST = 10;
export const PIN_DIGITS = { least: 4, most: 8 } as const;

/** Whether a PIN is among the first that anybody would try: one digit again and again, digits in a row, or a pair repeated. */
export function isEasyPin(pin: string): boolean {
  const steps = [...pin].slice(1).map((digit, i) => (Number(digit) - Number(pin[i]) + 10) % 10);
  return steps.every((step) => step === steps[0] && [0, 1, 9].includes(step)) || /^(..)\1+$/.test(pin);
}
