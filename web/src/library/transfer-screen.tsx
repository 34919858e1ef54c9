/** The library in and out: packs and lists, looked at before anything is taken. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ImportPreview, ImportProgress, ImportRow, ImportState } from '@waxwing/core/formats';
import { useState } from 'react';
import { Link } from 'react-router';

import { call, callLines, ProblemError } from '../api/http';
import { libraryKeys } from '../api/keys';
import { archivedQuery, movementsQuery } from '../api/queries';
import { PageHead } from '../shell/page';
import { say } from '../words/say';
import { Changes } from './changes';
import { PickMovement } from './pick-movement';

export function TransferScreen() {
  return (
    <div className="page space-y-8">
      <PageHead title={say.library.importAndExport} back={{ to: '/library', name: say.common.library }} />
      <TakeIn />
      <GiveOut />
      <Archived />
    </div>
  );
}

const STATE_WORDS: Readonly<Record<ImportState, string>> = {
  new: say.library.newWord,
  same: say.library.theSameAsHere,
  changed: say.library.changedInTheFile,
  conflict: say.library.changedHereAndInThe,
};

function TakeIn() {
  const queries = useQueryClient();
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [progress, setProgress] = useState<{ done: number; total: number } | null>(null);
  const [finished, setFinished] = useState<number | null>(null);

  const fail = (error: unknown) => {
    const named = error instanceof ProblemError && error.errors.length > 0 ? error.errors : null;
    setProblems(
      named?.map(({ path, message }) => `${path} ${message}`.trim()) ?? [
        error instanceof Error ? error.message : String(error),
      ],
    );
  };
  const look = async (file: File) => {
    setPreview(null);
    setFinished(null);
    setProblems([]);
    try {
      const kind = file.name.toLowerCase().endsWith('.csv') ? 'csv' : 'pack';
      const answer = await call('POST /imports', { query: { kind }, body: file });
      setPreview(answer);
      setTaken(new Set(answer.rows.filter(({ state }) => state === 'new' || state === 'changed').map(({ id }) => id)));
    } catch (error) {
      fail(error);
    }
  };
  const apply = async (importId: string) => {
    setProblems([]);
    setProgress({ done: 0, total: taken.size });
    try {
      await callLines(
        'POST /imports/{id}/apply',
        { id: importId, body: { take: [...taken] } },
        (line: ImportProgress) => {
          if ('done' in line) setProgress(line);
          else if ('finished' in line) setFinished(line.finished);
          else throw new Error(line.problem);
        },
      );
      await queries.invalidateQueries({ queryKey: libraryKeys.all });
      setPreview(null);
    } catch (error) {
      fail(error);
    } finally {
      setProgress(null);
    }
  };
  const toggle = (id: string) => {
    const next = new Set(taken);
    if (!next.delete(id)) next.add(id);
    setTaken(next);
  };

  return (
    <section aria-labelledby="in">
      <h2 id="in" className="border-base-content mb-3 border-b-2 pb-1">
        {say.library.import}
      </h2>
      <label className="block">
        <span className="mb-1 block">{say.library.aLibraryPackJsonOr}</span>
        <input
          type="file"
          className="file-input"
          accept=".json,.csv,application/json,text/csv"
          aria-label={say.library.fileToImport}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) void look(file);
          }}
        />
      </label>
      {problems.length > 0 && (
        <div role="alert" className="text-error mt-3">
          <p className="font-bold">{say.library.nothingWasChanged}</p>
          <ul>
            {problems.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </div>
      )}
      {finished !== null && (
        <p role="status" className="mt-3 font-semibold">
          {say.library.wereImported(finished)}
        </p>
      )}
      {preview && (
        <div className="mt-4">
          <PreviewRows rows={preview.rows} taken={taken} onToggle={toggle} />
          {progress ? (
            <p role="status" className="mt-3 flex items-center gap-3">
              <progress className="progress w-60" value={progress.done} max={progress.total} />
              {say.library.importedOf(progress.done, progress.total)}
            </p>
          ) : (
            <button
              type="button"
              className="btn btn-primary mt-3"
              disabled={taken.size === 0}
              onClick={() => void apply(preview.importId)}
            >
              {say.library.importMovements(taken.size)}
            </button>
          )}
        </div>
      )}
    </section>
  );
}

/** Rows beyond this are counted, not drawn. */
const MOST_ROWS = 200;

function PreviewRows({
  rows,
  taken,
  onToggle,
}: {
  rows: readonly ImportRow[];
  taken: ReadonlySet<string>;
  onToggle: (id: string) => void;
}) {
  const different = rows.filter(({ state }) => state !== 'same');
  const same = rows.length - different.length;
  return (
    <>
      <p role="status" className="mb-2">
        {(['new', 'changed', 'conflict'] as const)
          .map((state) => `${different.filter((row) => row.state === state).length} ${STATE_WORDS[state]}`)
          .join(' · ')}{' '}
        · {same} {STATE_WORDS.same}
      </p>
      <ul className="ruled">
        {different.slice(0, MOST_ROWS).map((row) => (
          <li key={row.id} className="py-2">
            <label className="flex items-center gap-3">
              <input
                type="checkbox"
                className="checkbox"
                checked={taken.has(row.id)}
                onChange={() => onToggle(row.id)}
              />
              <span className="font-semibold">{row.name}</span>
              <span className={row.state === 'conflict' ? 'text-error font-semibold' : 'quiet'}>
                {STATE_WORDS[row.state]}
              </span>
            </label>
            {row.workedOut.length > 0 && (
              <p className="ml-9 text-sm">{say.library.workedOutFromAnEarlier(row.workedOut.join(', '))}</p>
            )}
            {row.changes.length > 0 && (
              <details className="ml-9">
                <summary className="quiet cursor-pointer text-sm">
                  {say.library.differences(row.changes.length)}
                </summary>
                <Changes changes={row.changes} />
              </details>
            )}
          </li>
        ))}
      </ul>
      {different.length > MOST_ROWS && (
        <p className="quiet">{say.library.andMoreDiffer(different.length - MOST_ROWS)}</p>
      )}
    </>
  );
}

function GiveOut() {
  const movements = useQuery(movementsQuery).data ?? [];
  const [chosen, choose] = useState<readonly string[]>([]);
  const query = chosen.length > 0 ? `?ids=${chosen.join(',')}` : '';
  return (
    <section aria-labelledby="out">
      <h2 id="out" className="border-base-content mb-3 border-b-2 pb-1">
        {say.library.export}
      </h2>
      <p className="mb-2">
        {chosen.length === 0 ? say.library.theWholeLibraryMovementsOr(movements.length) : say.library.only}{' '}
        <PickMovement title={say.library.addToTheSelection} without={chosen} onPick={(id) => choose([...chosen, id])} />
      </p>
      <p className="mb-3 flex flex-wrap gap-1">
        {chosen.map((id) => (
          <button
            key={id}
            type="button"
            className="btn btn-sm"
            onClick={() => choose(chosen.filter((other) => other !== id))}
          >
            {movements.find((movement) => movement.id === id)?.name} ×
          </button>
        ))}
      </p>
      <div className="flex flex-wrap gap-2">
        <a className="btn btn-primary" href={`/api/library/pack${query}`} download>
          {say.library.libraryPackJson}
        </a>
        <a className="btn" href={`/api/library/movements.csv${query}`} download>
          {say.library.listOfMovementsCsv}
        </a>
        <a className="btn btn-ghost" href="/api/schema/pack">
          {say.library.schemaOfAPack}
        </a>
      </div>
    </section>
  );
}

function Archived() {
  const archived = useQuery(archivedQuery).data ?? [];
  if (archived.length === 0) return null;
  return (
    <section aria-labelledby="archived">
      <h2 id="archived" className="border-base-content mb-1 border-b-2 pb-1">
        {say.library.archived}
      </h2>
      <ul className="ruled">
        {archived.map(({ id, name }) => (
          <li key={id} className="py-1.5">
            <Link className="link" to={`/library/${id}/history`}>
              {name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
