/** A sentence with a part that is more than words, such as a link: what stands in ⟦these⟧ is drawn by `as`. */
import type { ReactNode } from 'react';

export function Marked({ words, as }: { words: string; as: (part: string) => ReactNode }) {
  const [before = '', part = '', after = ''] = words.split(/[⟦⟧]/u);
  return (
    <>
      {before}
      {as(part)}
      {after}
    </>
  );
}

/** What is typed at the machine itself. */
export const asCode = (part: string): ReactNode => <code>{part}</code>;
/** What counts most of a sentence. */
export const asStrong = (part: string): ReactNode => <strong>{part}</strong>;
