/** What was typed into a form and not saved, kept on this device until it is saved or discarded. */
import { upgradeMovement } from '@waxwing/core/movement';
import { useEffect } from 'react';
import type { UseFormReturn } from 'react-hook-form';

import { forgetHere, keepHere, keptHere } from '../shell/kept';
import { BLANK, type Fields } from './movement-fields';

export interface Draft {
  /** The version that was being changed; when another one is current, somebody saved since. */
  version: number | null;
  fields: Fields;
}

const keyOf = (key: string): string => `waxwing-draft-${key}`;

/** The draft of a form; null when there is none. */
export function readDraft(key: string): Draft | null {
  try {
    const draft = JSON.parse(keptHere(keyOf(key)) ?? 'null') as Draft | null;
    // What an earlier version of the form kept lacks the fields of today.
    return draft && { ...draft, fields: { ...BLANK, ...(upgradeMovement(draft.fields, 3) as Fields) } };
  } catch {
    return null;
  }
}

export function keepDraft(key: string, version: number | undefined, fields: Fields): void {
  const draft: Draft = { version: version ?? null, fields };
  keepHere(keyOf(key), JSON.stringify(draft));
}

/** Keeps a form's changes as they are typed. @returns forgets the draft */
export function useDraft(key: string, version: number | undefined, form: UseFormReturn<Fields>): () => void {
  useEffect(
    () =>
      form.subscribe({
        formState: { values: true, isDirty: true },
        callback: ({ values, isDirty }) => isDirty && keepDraft(key, version, values),
      }),
    [key, version, form],
  );
  return () => forgetHere(keyOf(key));
}
