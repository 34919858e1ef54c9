/** The one list of the house: ruled rows that open something, each with its name, what is said of it, and a figure at the right. */
import type { ReactNode } from 'react';
import { Link } from 'react-router';

export interface LedgerRow {
  key: string;
  to: string;
  name: ReactNode;
  /** Between the name and what is said of it: a small picture. */
  middle?: ReactNode;
  /** Beside the name, in quiet words. */
  about?: ReactNode;
  /** At the right edge: a time, a number. */
  aside?: ReactNode;
  /** In front of the name: a picture, a time. */
  lead?: ReactNode;
}

/** @param columns the widths of the columns on a wide page: lead, name, middle, about, aside, as far as there are such */
export function Ledger({ rows, columns, label }: { rows: readonly LedgerRow[]; columns: string; label?: string }) {
  return (
    <ul className="ruled border-base-content border-t-2" aria-label={label}>
      {rows.map(({ key, to, lead, name, middle, about, aside }) => (
        <li key={key}>
          <Link
            to={to}
            className="hover:bg-base-200 grid min-h-14 items-center gap-x-6 px-2 py-2 sm:grid-cols-(--columns)"
            style={{ '--columns': columns } as React.CSSProperties}
          >
            {lead !== undefined && <span>{lead}</span>}
            <span className="text-lg font-semibold">{name}</span>
            {middle !== undefined && <span>{middle}</span>}
            {about !== undefined && <span className="quiet min-w-0">{about}</span>}
            {aside !== undefined && <span className="sm:text-right">{aside}</span>}
          </Link>
        </li>
      ))}
    </ul>
  );
}
