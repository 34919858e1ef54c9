/** Every saved version of a movement: who, when, what it changed; any of them can be brought back, and the movement put away. */
import type { MovementPage } from '@waxwing/core/ladder';
import type { MovementVersion } from '@waxwing/core/movement';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import { call } from '../api/http';
import { libraryKeys } from '../api/keys';
import { movementQuery, versionsQuery } from '../api/queries';
import { Await } from '../shell/states';
import { Changes } from './changes';
import { PageHead } from '../shell/page';
import { dayWords, timeWords } from '../words/dates';

export function HistoryScreen() {
  const { movementId = '' } = useParams();
  const versions = useQuery({ ...versionsQuery(movementId), staleTime: 0 });
  const page = useQuery(movementQuery(movementId));
  return (
    <div className="page">
      <Await query={page} what="the movement">
        {(movement) => (
          <Await query={versions} what="its history">
            {(all) => <History page={movement} versions={all} />}
          </Await>
        )}
      </Await>
    </div>
  );
}

function History({ page, versions }: { page: MovementPage; versions: readonly MovementVersion[] }) {
  const queries = useQueryClient();
  const [said, say] = useState<{ text: string; bad: boolean } | null>(null);
  const { id, name } = page.movement;
  const act = async (request: Promise<unknown>, text: string) => {
    try {
      await request;
      await queries.invalidateQueries({ queryKey: libraryKeys.all });
      say({ text, bad: false });
    } catch (error) {
      say({ text: error instanceof Error ? error.message : String(error), bad: true });
    }
  };
  const restore = ({ movement: { id: _, ...document }, version }: MovementVersion) =>
    act(
      call('PATCH /movements/{id}', { id, body: { ...document, version: page.version } }),
      `Version ${version} is back, as version ${page.version + 1}.`,
    );
  const archive = (archived: boolean) =>
    act(
      call('POST /movements/{id}/archive', { id, body: { version: page.version, archived } }),
      archived ? 'Archived. Sessions that used it keep it.' : 'Back in the library.',
    );
  return (
    <>
      <div className="mb-4 flex flex-wrap items-end justify-between gap-3">
        <PageHead title="History" back={{ to: `/library/${id}`, name }} />
        <button type="button" className="btn" onClick={() => void archive(page.archivedAt === null)}>
          {page.archivedAt === null ? 'Archive this movement' : 'Put it back in the library'}
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
                Version {one.version}
                {i === 0 && ', now'}
              </h2>
              <span className="quiet">
                {one.author || 'Starter library'} · {dayWords(one.savedAt)}, {timeWords(one.savedAt)}
              </span>
              {i > 0 && (
                <button
                  type="button"
                  className="btn btn-sm"
                  aria-label={`Restore version ${one.version}`}
                  onClick={() => void restore(one)}
                >
                  Restore
                </button>
              )}
            </div>
            {one.changes.length === 0 ? <p className="quiet">As it came.</p> : <Changes changes={one.changes} />}
          </li>
        ))}
      </ol>
    </>
  );
}
