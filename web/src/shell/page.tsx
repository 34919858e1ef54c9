/** The grid of every desk screen: one left edge, one head with the name left and what can be done right, and two widths. */
import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** A column to read or fill in, or the width to work in. */
const WIDTHS = { reading: 'page page-reading', work: 'page' } as const;

interface Head {
  title: ReactNode;
  /** The screen that this one belongs to. */
  back?: { to: string; name: string } | undefined;
  /** One line under the name. */
  about?: ReactNode;
  actions?: ReactNode;
}

export function Page({
  width = 'work',
  as: As = 'div',
  children,
  ...head
}: Head & { width?: keyof typeof WIDTHS; as?: 'div' | 'article'; children: ReactNode }) {
  return (
    <As className={WIDTHS[width]}>
      <PageHead {...head} />
      {children}
    </As>
  );
}

/** The name of a screen, the way back above it and one line below. */
export const PageTitle = ({ title, back, about }: Omit<Head, 'actions'>) => (
  <div className="min-w-0">
    {back && (
      <p className="quiet text-sm">
        <Link className="link" to={back.to}>
          {back.name}
        </Link>
      </p>
    )}
    <h1>{title}</h1>
    {about && <div className="quiet text-lg">{about}</div>}
  </div>
);

export const PageHead = ({ actions, ...title }: Head) => (
  <header className="mb-6 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
    <PageTitle {...title} />
    {actions && <div className="no-print flex flex-wrap items-center gap-2">{actions}</div>}
  </header>
);

/** A part of a page under its heading, ruled off above. */
export const Section = ({
  title,
  aside,
  children,
}: {
  title: string;
  /** At the right of the heading. */
  aside?: ReactNode;
  children: ReactNode;
}) => (
  <section aria-label={title}>
    <div className="border-base-content mb-2 flex items-baseline justify-between gap-4 border-b-2 pb-1">
      <h2>{title}</h2>
      {aside}
    </div>
    {children}
  </section>
);
