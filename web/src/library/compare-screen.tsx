/** Two to four movements side by side: what differs stands out, what is the same is said once. */
import { useQueries, useQuery } from '@tanstack/react-query';
import { type ComparedRow, compareMovements, label, type Movement, underRules } from '@waxwing/core/movement';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';

import { figuresQuery, movementQuery } from '../api/queries';
import { FigureDrawing } from '../figures/figure';
import { PathPlan } from '../figures/path-plan';
import { Strip } from '../figures/strip';
import { lessMotion, useClock } from '../figures/use-clock';
import { motionIn } from '../figures/use-motion';
import { PageHead } from '../shell/page';
import { Empty, Failed, Loading } from '../shell/states';
import { say } from '../words/say';
import { PickMovement } from './pick-movement';
import { useRules } from './use-rules';

const MOST = 4;
/** Two fit on a phone. */
const LABEL_REM = 5.5;
const MOVEMENT_REM = 8;

export function CompareScreen() {
  const [params, setParams] = useSearchParams();
  const asked = [...new Set((params.get('ids') ?? '').split(',').filter(Boolean))];
  const [ids, others] = [asked.slice(0, MOST), asked.slice(MOST)];
  const pages = useQueries({ queries: ids.map((id) => movementQuery(id)) });
  const force = useRules();
  const show = (next: readonly string[]) => setParams({ ids: next.join(',') }, { replace: true });
  const movements = pages.flatMap(({ data }) =>
    data ? [force ? underRules(data.movement, force.tags) : data.movement] : [],
  );
  const error = pages.find((page) => page.error)?.error;
  return (
    <div className="page">
      <PageHead
        title={say.library.compare}
        back={{ to: '/library', name: say.common.library }}
        actions={
          ids.length < MOST && (
            <PickMovement title={say.library.addAMovement} without={ids} onPick={(id) => show([...ids, id])} />
          )
        }
      />
      {others.length > 0 && (
        <p role="status" className="mb-4">
          {say.library.fourFitSideBySide(others.map(label).join(', '))}
        </p>
      )}
      {error ? (
        <Failed error={error} />
      ) : movements.length < ids.length ? (
        <Loading what={say.common.theMovements} />
      ) : movements.length < 2 ? (
        <Empty title={movements[0] ? say.library.andAnother(movements[0].name) : say.library.nothingToCompareYet}>
          <p>{say.library.addTwoToFourMovements(movements.length)}</p>
        </Empty>
      ) : (
        <Table movements={movements} onRemove={(id) => show(ids.filter((other) => other !== id))} />
      )}
    </div>
  );
}

function Table({ movements, onRemove }: { movements: readonly Movement[]; onRemove: (id: string) => void }) {
  const rows = compareMovements(movements);
  const different = rows.filter((row) => row.differs);
  const same = rows.filter((row) => !row.differs);
  return (
    <>
      <div className="overflow-x-auto">
        <table
          className="w-full table-fixed text-left [&_td]:align-top [&_th]:align-top"
          style={{ minWidth: `${LABEL_REM + MOVEMENT_REM * movements.length}rem` }}
        >
          <thead>
            <tr className="border-base-content border-b-2">
              <td className="w-22 sm:w-28" />
              {movements.map(({ id, name, families }) => (
                <th key={id} scope="col" className="pb-2 pr-4">
                  <Link className="link text-xl" to={`/library/${id}`}>
                    {name}
                  </Link>
                  <span className="quiet block text-sm font-normal">
                    {families.map(label).join(', ')}
                    <button
                      type="button"
                      className="btn btn-xs btn-ghost ml-2"
                      aria-label={say.library.leaveOutNamed(name)}
                      onClick={() => onRemove(id)}
                    >
                      {say.library.leaveOutThis}
                    </button>
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Shown movements={movements} />
            {different.map((row, i) => (
              // The first row is the one look that must do.
              <tr key={row.title} className={`border-base-300 border-b ${i === 0 ? 'text-xl' : ''}`}>
                <th scope="row" className="py-2 pr-3">
                  {row.title}
                </th>
                {row.values.map((values, j) => (
                  <Cell key={movements[j]?.id} values={values} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {same.length > 0 && (
        <section aria-labelledby="same" className="mt-6">
          <h2 id="same" className="mb-1">
            {say.library.theSameInBothAll(movements.length)}
          </h2>
          <ul className="quiet">
            {same.map((row) => (
              <li key={row.title}>
                <span className="font-bold">{row.title}:</span> {row.values[0]?.map(({ text }) => text).join(', ')}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** The movements in step with one another, one rep of each in the time of the longest. */
function Shown({ movements }: { movements: readonly Movement[] }) {
  const library = useQuery(figuresQuery).data;
  const clock = useClock(true);
  const motions = useMemo(
    () => (library ? movements.map((movement) => motionIn(library, movement)) : []),
    [library, movements],
  );
  if (!motions.some(Boolean)) return null;
  const longest = Math.max(...motions.map((motion) => (motion && !motion.still ? motion.seconds : 0)), 1);
  return (
    <>
      <tr className="border-base-300 border-b">
        <th scope="row" className="py-2 pr-3">
          {say.library.fromAbove}
          <span className="quiet block text-sm font-normal">{say.library.facingUpHandsDotted}</span>
        </th>
        {movements.map((movement, i) => {
          const motion = motions[i];
          return (
            <td key={movement.id} className="py-2 pr-4">
              {motion ? (
                <PathPlan motion={motion} title={movement.name} />
              ) : (
                <span className="quiet">{say.library.noFigureYet}</span>
              )}
            </td>
          );
        })}
      </tr>
      <tr className="border-base-300 border-b">
        <th scope="row" className="py-2 pr-3">
          {say.library.shown}
          {!lessMotion() && (
            <button type="button" className="btn btn-xs mt-2 block" onClick={() => clock.play(!clock.playing)}>
              {clock.playing ? say.common.pause : say.common.play}
            </button>
          )}
        </th>
        {movements.map((movement, i) => {
          const motion = motions[i];
          return (
            <td key={movement.id} className="py-2 pr-4">
              {motion && lessMotion() ? (
                <div className="h-40 [&>div]:h-full">
                  <Strip motion={motion} view={motion.figure.view} name={movement.name} />
                </div>
              ) : motion ? (
                <FigureDrawing
                  motion={motion}
                  at={clock.time}
                  rate={motion.still ? 1 : motion.seconds / longest}
                  view={motion.figure.view}
                  title={movement.name}
                  className="h-40 w-full"
                />
              ) : (
                <span className="quiet">{say.library.noFigureYet}</span>
              )}
            </td>
          );
        })}
      </tr>
    </>
  );
}

const Cell = ({ values }: { values: ComparedRow['values'][number] }) => (
  <td className="py-2 pr-4">
    {values.length === 0 ? (
      <span className="quiet">—</span>
    ) : (
      <ul>
        {values.map(({ text, own }) => (
          <li key={text} className={own ? 'font-semibold' : 'quiet'}>
            {text}
          </li>
        ))}
      </ul>
    )}
  </td>
);
