/** How the studio's data is kept: backups, room on the disk, and what cannot be read. */
import type { Keeping as Kept } from '@waxwing/core/client';
import { useQuery } from '@tanstack/react-query';
import { keepingQuery } from '../api/queries';
import { Await } from '../shell/states';
import { bytesWords, dayWords, timeWords } from '../words/dates';

export function Keeping() {
  return (
    <section>
      <h2 className="mb-1">Backups</h2>
      <p className="quiet mb-2 text-sm">
        One is made each day and lies in the folder backups beside the data: the last seven days, and one for each of
        the four weeks before. Copy one to another machine now and then. To bring one back, stop Waxwing and run{' '}
        <code>npm run restore -- FILE</code>.
      </p>
      <Await query={useQuery(keepingQuery)} what="the backups">
        {(keeping) => <What keeping={keeping} />}
      </Await>
    </section>
  );
}

function What({ keeping: { backups, backupFailed, damaged, freeBytes, low } }: { keeping: Kept }) {
  return (
    <>
      {backupFailed && (
        <p role="alert" className="text-error mb-2 font-bold">
          The backup of today could not be made. Run <code>npm run backup</code>: it says why.
        </p>
      )}
      {backups.length === 0 ? (
        <p className="quiet">None yet: the first is made a few seconds after the start.</p>
      ) : (
        <ul className="ruled border-base-content border-t-2">
          {backups.map(({ file, madeAt, bytes }) => (
            <li key={file} className="flex flex-wrap items-center gap-x-4 py-2">
              <span className="w-44 font-semibold">
                {dayWords(madeAt)}, {timeWords(madeAt)}
              </span>
              <span className="w-24">{bytesWords(bytes)}</span>
              <span className="quiet min-w-0 flex-1 max-sm:basis-full">{file}</span>
            </li>
          ))}
        </ul>
      )}
      <p className={low ? 'text-error mt-3 font-bold' : 'quiet mt-3'}>
        {bytesWords(freeBytes)} free on the disk{low ? ': make room, or nothing can be saved soon.' : '.'}
      </p>
      {damaged.length > 0 && (
        <div role="alert" className="mt-4">
          <h3 className="text-error font-bold">Cannot be read</h3>
          <p>Everything else is as it was. A backup from before has these whole.</p>
          <ul className="ruled">
            {damaged.map(({ what, id, name }) => (
              <li key={`${what} ${id}`} className="py-2">
                <span className="font-semibold first-letter:uppercase">{what}</span> <span>{name}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}
