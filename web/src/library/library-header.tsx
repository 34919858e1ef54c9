/** The head of a screen of the library: the way back, and its name. */
import type { ReactNode } from 'react';
import { Link } from 'react-router';

export const LibraryTitle = ({
  title,
  to = '/library',
  back = 'Library',
}: {
  title: ReactNode;
  to?: string;
  back?: string;
}) => (
  <div>
    <p className="quiet text-sm">
      <Link className="link" to={to}>
        {back}
      </Link>
    </p>
    <h1>{title}</h1>
  </div>
);
