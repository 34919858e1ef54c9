/** Every saved version of a movement: who, when, what it changed; any of them can be brought back, and the movement put away. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { MovementPage } from '@waxwing/core/ladder';
import type { MovementVersion } from '@waxwing/core/movement';
import { useState } from 'react';
import { useParams } from 'react-router';

import { call } from '../api/http';
import { libraryKeys } from '../api/keys';
import { movementQuery, versionsQuery } from '../api/queries';
import { PageHead } from '../shell/page';
import { Await } from '../shell/states';
import { dayWords, timeWords } from '../words/dates';
import { say } from '../words/say';
import { Changes } from './changes';

export function HistoryScreen() {
  const { movementId = '' } = useParams();
  const versions = useQuery({ ...versionsQuery(movementId), staleTime: 0 });
  const page = useQuery(movementQuery(movementId));
  return (
    <div className="page">
      <Await query={page} what={say.common.theMovement}>
        {(movement) => (
          <Await query={versions} what={say.library.itsHistory}>
            {(all) => <History page={movement} versions={all} />}
          </Await>
        )}
      </Await>
    </div>
  );
}

function History({ page, versions }: { page: MovementPage; versions: readonly MovementVersion[] }) {
  const queries = useQueryClient();
  const [said, tell] = useState<{ text: string; bad: boolean } | null>(null);
  const { id, name } = page.movement;
  const act = async (request: Promise<unknown>, text: string) => {
    try {
      await request;
      await queries.invalidateQueries({ queryKey: libraryKeys.all });
      tell({ text, bad: false });
    } catch (error) {
      tell({ text: error instanceof Error ? error.message : String(error), bad: true });
    }
  };
  const restore = ({ movement: { id: _, ...document }, version }: MovementVersion) =>
    act(
      call('PATCH /movements/{id}', { id, body: { ...document, version: page.version } }),
      say.library.versionIsBackAsVersion(version, page.version + 1),
    );
  const archive = (archived: boolean) =>
    act(
      call('POST /movements/{id}/archive', { id, body: { version: page.version, archived } }),
      archived ? say.library.archivedSessionsThatUsedIt : say.library.backInTheLibrary,
    );
  return (
    <>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
        <PageHead title={say.library.history} back={{ to: `/library/${id}`, name }} />
        <button type="button" className="btn" onClick={() => void archive(page.archivedAt === null)}>
          {page.archivedAt === null ? say.library.archiveThisMovement : say.library.putItBackInThe}
        </button>
      </div>
      <p role="status" className={`mb-3 min-h-6 ${said?.bad ? 'text-error' : 'quiet'}`}>
        {said?.text}
      </p>
      <ol className="ruled">
        {versions.map((one, i) => (
          <li key={one.version} className="py-3">
            <div className="flex flex-wrap items-baseline justify-between gap-2">
              <h2 className="text-lg">
                {say.library.versionAt(one.version)}
                {i === 0 && say.library.now}
              </h2>
              <span className="quiet">
                {one.author || say.library.starterLibrary} · {dayWords(one.savedAt)}, {timeWords(one.savedAt)}
              </span>
              {i > 0 && (
                <button
                  type="button"
                  className="btn btn-sm"
                  aria-label={say.library.restoreVersion(one.version)}
                  onClick={() => void restore(one)}
                >
                  {say.library.restore}
                </button>
              )}
            </div>
            {one.changes.length === 0 ? (
              <p className="quiet">{say.library.asItCame}</p>
            ) : (
              <Changes changes={one.changes} />
            )}
          </li>
        ))}
      </ol>
    </>
  );
}
