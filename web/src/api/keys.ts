/** What is kept of the server's answers, by name: the first words of a key tell all answers of one kind that a change has to tell. */
export const libraryKeys = {
  /** Everything that a changed movement changes. */
  all: ['library'] as const,
  list: ['library', 'list'] as const,
  archived: ['library', 'archived'] as const,
  health: ['library', 'health'] as const,
  index: ['library', 'index'] as const,
  movement: (id: string) => ['library', 'movement', id] as const,
  versions: (id: string) => ['library', 'versions', id] as const,
  pictures: (id: string) => ['pictures', id] as const,
};

export const clientKeys = {
  list: ['clients'] as const,
  one: (id: string) => ['client', id] as const,
  /** Of all days. */
  days: (id: string) => ['client-on-day', id] as const,
  onDay: (id: string, day: string) => ['client-on-day', id, day] as const,
  record: (id: string) => ['record', id] as const,
  sets: (id: string) => ['sets', id] as const,
  stills: (id: string) => ['clients', id, 'stills'] as const,
};

export const sessionKeys = {
  /** Every list of sessions. */
  lists: ['sessions'] as const,
  filtered: (filter: object) => ['sessions', filter] as const,
  between: (from: string, to: string) => ['sessions', 'between', from, to] as const,
  /** Every session that was opened. */
  opened: ['session'] as const,
  one: (id: string) => ['session', id] as const,
};

export const doorKeys = {
  /** Every list of what was done. */
  audits: ['audit'] as const,
  audit: (filter: object) => ['audit', filter] as const,
};

export const planKeys = {
  /** Every list of plans. */
  lists: ['plans'] as const,
  kind: (kind: string) => ['plans', kind] as const,
  between: (from: string, to: string) => ['plans', 'between', from, to] as const,
  one: (id: string) => ['plan', id] as const,
  sheet: (id: string, clientId: string) => ['sheet', id, clientId] as const,
};
