/** How the studio's data is kept: backups, room on the disk, and what cannot be read. */
import { useQuery } from '@tanstack/react-query';
import type { Keeping as Kept } from '@waxwing/core/client';

import { keepingQuery } from '../api/queries';
import { Await } from '../shell/states';
import { bytesWords, dayWords, timeWords } from '../words/dates';
import { asCode, Marked } from '../words/marked';
import { say } from '../words/say';

export function Keeping() {
  return (
    <section>
      <h2 className="mb-1">{say.studio.backups}</h2>
      <p className="quiet mb-2 text-sm">
        <Marked words={say.studio.oneIsMadeEachDay} as={asCode} />
      </p>
      <Await query={useQuery(keepingQuery)} what={say.studio.theBackups}>
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
          <Marked words={say.studio.theBackupOfTodayCould} as={asCode} />
        </p>
      )}
      {backups.length === 0 ? (
        <p className="quiet">{say.studio.noneYetTheFirstIs}</p>
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
        {say.studio.freeOnTheDiskMake(bytesWords(freeBytes), low)}
      </p>
      {damaged.length > 0 && (
        <div role="alert" className="mt-4">
          <h3 className="text-error font-bold">{say.studio.cannotBeRead}</h3>
          <p>{say.studio.everythingElseIsAsIt}</p>
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
