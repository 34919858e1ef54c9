/** The contact sheet: the key postures of every figure and of each of its faults, for looking them over. */
import { useQuery } from '@tanstack/react-query';
import type { FigureLibrary, Motion } from '@waxwing/core/body';
import type { MovementPage } from '@waxwing/core/ladder';
import { figureIdOf, label, type MovementSummary, type View, VIEWS, viewWords } from '@waxwing/core/movement';
import { memo, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';

import { figuresQuery, movementQuery, movementsQuery } from '../api/queries';
import { PageTitle } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { useSetParam } from '../shell/use-set-param';
import { say } from '../words/say';
import { FaultDrawing } from './fault-drawing';
import { FigureDrawing } from './figure';
import { Strip } from './strip';
import { lessMotion, useClock } from './use-clock';
import { motionIn } from './use-motion';
import { useNear } from './use-near';

export function FiguresScreen() {
  const library = useQuery(figuresQuery);
  const movements = useQuery(movementsQuery);
  return (
    <div className="page">
      <Await query={library} what={say.figures.theFigures}>
        {(figures) => (
          <Await query={movements} what={say.common.theMovements}>
            {(all) => <Sheet library={figures} movements={all} />}
          </Await>
        )}
      </Await>
    </div>
  );
}

function Sheet({ library, movements }: { library: FigureLibrary; movements: readonly MovementSummary[] }) {
  const [params] = useSearchParams();
  const [playing, play] = useState(false);
  const drawn = movements.filter((movement) => figureIdOf(movement) in library.figures);
  const families = [...new Set(drawn.flatMap(({ families: [first] }) => first ?? []))].sort();
  const family = families.find((one) => one === params.get('family')) ?? families[0] ?? '';
  const view = VIEWS.find((one) => one === params.get('view'));
  const set = useSetParam();
  return (
    <>
      <header className="mb-4 flex flex-wrap items-end justify-between gap-3">
        <PageTitle title={say.common.figures} back={{ to: '/library', name: say.common.library }} />
        <p className="quiet">
          {drawn.length === movements.length
            ? say.figures.allMovementsAreDrawn(movements.length)
            : say.figures.ofMovementsAreDrawnThe(drawn.length, movements.length)}
        </p>
        <div className="flex flex-wrap gap-2">
          {!lessMotion() && (
            <button type="button" className="btn" onClick={() => play(!playing)}>
              {playing ? say.figures.standStill : say.figures.playAll}
            </button>
          )}
          <select
            className="select w-auto"
            aria-label={say.common.family}
            value={family}
            onChange={(event) => set('family', event.target.value)}
          >
            {families.map((one) => (
              <option key={one} value={one}>
                {label(one)}
              </option>
            ))}
          </select>
          <select
            className="select w-auto"
            aria-label={say.figures.seenFrom}
            value={view ?? ''}
            onChange={(event) => set('view', event.target.value)}
          >
            <option value="">{say.figures.bestSideOfEach}</option>
            {VIEWS.map((one) => (
              <option key={one} value={one}>
                {viewWords(one)}
              </option>
            ))}
          </select>
        </div>
      </header>
      {drawn.length === 0 && <Empty title={say.figures.noFigures} />}
      <ul className="ruled">
        {drawn
          .filter(({ families: [first] }) => first === family)
          .map((movement) => (
            <Row key={movement.id} library={library} movement={movement} view={view} playing={playing} />
          ))}
      </ul>
    </>
  );
}

function Row({
  library,
  movement,
  view,
  playing,
}: {
  library: FigureLibrary;
  movement: MovementSummary;
  view: View | undefined;
  playing: boolean;
}) {
  const [row, near] = useNear<HTMLLIElement>();
  const Postures = playing ? Playing : Strip;
  const motion = useMemo(() => (near ? motionIn(library, movement) : null), [near, library, movement]);
  return (
    <li ref={row} className="grid items-end gap-x-4 gap-y-2 py-3 lg:grid-cols-[11rem_1fr_1.4fr]">
      <Link className="link self-start font-semibold" to={`/library/${movement.id}`}>
        {movement.name}
      </Link>
      <div className="h-36 min-w-0 [&>*]:h-full">
        {motion && <Postures motion={motion} view={view ?? motion.figure.view} name={movement.name} />}
      </div>
      {near && <FaultsShown library={library} movement={movement} view={view} />}
    </li>
  );
}

/** Runs at the movement's own tempo, in step with the rest of the page. */
function Playing({ motion, view, name }: { motion: Motion; view: View; name: string }) {
  const { time } = useClock(true);
  return <FigureDrawing motion={motion} at={time} view={view} title={name} className="w-full" />;
}

/** Drawn once: they stand still while the clean rep plays beside them. */
const FaultsShown = memo(function FaultsShown({
  library,
  movement,
  view,
}: {
  library: FigureLibrary;
  movement: MovementSummary;
  view: View | undefined;
}) {
  const page: MovementPage | undefined = useQuery(movementQuery(movement.id)).data;
  return (
    <ul className="flex flex-wrap gap-3">
      {(page?.movement.faults ?? []).map((fault) => {
        if (!library.figures[movement.id]?.faults[fault.id]) return null;
        return (
          <li key={fault.id} className="w-28">
            <FaultDrawing
              library={library}
              movement={movement}
              fault={fault}
              view={view}
              title={`${movement.name}: ${fault.name}`}
              className="h-28 w-full"
            />
            <p className="text-center text-sm leading-tight">{fault.name}</p>
          </li>
        );
      })}
    </ul>
  );
});
