/** Library-wide names: `goblet-squat/knees-in` for a fault, `goblet-squat/knees-in/push-the-floor-apart` for a correction. */

export const faultKey = (movementId: string, faultId: string): string => `${movementId}/${faultId}`;

export const correctionKey = (movementId: string, faultId: string, correctionId: string): string =>
  `${movementId}/${faultId}/${correctionId}`;

/** Words that stand for screens of the library, and so cannot name a movement. */
export const RESERVED_IDS: readonly string[] = ['compare', 'figures', 'health', 'map', 'new', 'transfer'];

/** A name as a slug: `Side lunge (slow)` → `side-lunge-slow`. */
export const slugOf = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60)
    .replace(/-+$/, '');
