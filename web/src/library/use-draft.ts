/** What was typed into a form and not saved, kept on this device until it is saved or discarded. */
import { useEffect } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import type { Fields } from './movement-fields';

interface Draft {
  /** The version that was being changed; another one by now makes the draft stale. */
  version: number | null;
  fields: Fields;
}

const keyOf = (key: string): string => `waxwing-draft-${key}`;

/** The draft of a form at this version; null when there is none. */
export function readDraft(key: string, version: number | undefined): Fields | null {
  try {
    const draft = JSON.parse(localStorage.getItem(keyOf(key)) ?? 'null') as Draft | null;
    return draft && draft.version === (version ?? null) ? draft.fields : null;
  } catch {
    return null;
  }
}

/** Keeps a form's changes as they are typed. @returns forgets the draft */
export function useDraft(key: string, version: number | undefined, form: UseFormReturn<Fields>): () => void {
  useEffect(() => {
    return form.subscribe({
      formState: { values: true, isDirty: true },
      callback: ({ values, isDirty }) => {
        if (!isDirty) return;
        const draft: Draft = { version: version ?? null, fields: values };
        localStorage.setItem(keyOf(key), JSON.stringify(draft));
      },
    });
  }, [key, version, form]);
  return () => localStorage.removeItem(keyOf(key));
}
