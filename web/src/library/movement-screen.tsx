/** One movement on one page: phases across with their cues, faults with where to stand, what it asks for, and its neighbours. */
import { useQuery } from '@tanstack/react-query';
import { bestView } from '@waxwing/core/coaching';
import { setSeconds } from '@waxwing/core/dosage';
import { familiesOf, type MovementPage, type Neighbour, signBrief, signWords } from '@waxwing/core/ladder';
import {
  causeWords,
  cueWords,
  demandList,
  type Direction,
  type Fault,
  figureIdOf,
  inWords,
  kitWords,
  label,
  leverWords,
  type Movement,
  otherSchools,
  PLANE_WORDS,
  SEVERITY_WORDS,
  SIDES_WORDS,
  spokenOf,
  underRules,
  UNIT_WORDS,
  viewWords,
} from '@waxwing/core/movement';
import { lazy, type ReactNode, Suspense, useMemo } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';

import { faultKindsQuery, movementQuery, movementsQuery, stillsQuery } from '../api/queries';
import { LargeStill } from '../figures/still';
import { PageHead } from '../shell/page';
import { Await } from '../shell/states';
import { dayWords } from '../words/dates';
import { FocusMark } from '../words/focus-mark';
import { LadderMark } from '../words/ladder-mark';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';
import { Pictures } from './pictures';
import { Rulings } from './rulings';
import { ShowsMore } from './shows-more';
import { type RulesInForce, useRules } from './use-rules';

/** Words first: the figure comes when the page can be read already. */
const FigurePlayer = lazy(async () => ({ default: (await import('../figures/player')).FigurePlayer }));

export function MovementScreen() {
  const { movementId = '' } = useParams();
  return (
    <Await query={useQuery(movementQuery(movementId))} what={say.common.theMovement}>
      {(page) => <MovementArticle key={page.movement.id} page={page} />}
    </Await>
  );
}

/** `Squat, level 7 of 10`; only the family while the library is on its way. */
function LevelWords({ movement: { id, families } }: { movement: Movement }) {
  const movements = useQuery(movementsQuery).data;
  const all = useMemo(() => (movements ? familiesOf(movements) : []), [movements]);
  return families
    .map((family) => {
      const known = all.find((one) => one.family === family);
      const level = known?.members.find(({ movement }) => movement.id === id)?.level;
      return known && level !== undefined
        ? say.library.levelInFamily(label(family), level, known.levels)
        : label(family);
    })
    .join(' · ');
}

function MovementArticle({ page }: { page: MovementPage }) {
  const force = useRules();
  const faultId = useSearchParams()[0].get('fault') ?? undefined;
  const movement = force ? underRules(page.movement, force.tags) : page.movement;
  const drawn = useQuery(stillsQuery).data?.drawn.has(figureIdOf(movement));
  return (
    <article className="page">
      <PageHead
        title={movement.name}
        back={{ to: '/library', name: say.common.library }}
        about={
          <>
            <LevelWords movement={movement} />
            {movement.aliases.length > 0 && (
              <span className="block text-base">{say.library.also(movement.aliases.join(', '))}</span>
            )}
          </>
        }
        actions={<MovementTools id={movement.id} family={movement.families[0] ?? ''} />}
      />
      {page.archivedAt && (
        <p role="status" className="border-base-content mb-4 border-2 p-3 font-semibold">
          {say.library.archivedOnItIsIn(dayWords(page.archivedAt))}
        </p>
      )}
      <div className={`grid gap-x-7 gap-y-4 ${drawn === false ? '' : 'lg:grid-cols-[24rem_1fr]'}`}>
        {drawn !== false && (
          <Suspense fallback={<LargeStill movement={movement} className="block h-72 w-full lg:h-[26.25rem]" />}>
            <FigurePlayer key={faultId} movement={movement} faultId={faultId} />
          </Suspense>
        )}
        <div className="min-w-0 space-y-6">
          <div>
            <Phases movement={movement} />
            {force && <OtherSchools movement={page.movement} force={force} />}
            {drawn === false && <p className="quiet mt-2">{say.common.noFigureIsDrawnFor}</p>}
          </div>
          <Faults movement={movement} />
        </div>
      </div>
      <div className="mt-6 grid gap-x-7 gap-y-6 md:grid-cols-2">
        <Facts movement={movement} />
        <div className="space-y-6">
          <Ladder page={page} />
          <Asks movement={movement} />
        </div>
      </div>
      <Pictures movementId={movement.id} />
    </article>
  );
}

function MovementTools({ id, family }: { id: string; family: string }) {
  const tools = [
    [`/sight?movement=${id}`, say.common.watchAClip],
    [`/library/compare?ids=${id}`, say.library.compareWithAnother],
    [`/library/${id}/swap`, say.library.whatElseInstead],
    [`/library/map?family=${family}&at=${id}`, say.library.onItsLadder],
    [`/library/${id}/edit`, say.common.edit],
    [`/library/new?from=${id}`, say.library.makeACopy],
    [`/library/${id}/history`, say.library.earlierVersions],
    [`/library/${id}/card`, say.library.printACard],
  ] as const;
  return (
    <nav aria-label={say.library.thisMovement} className="flex flex-wrap gap-1">
      {tools.map(([to, name]) => (
        <Link key={name} to={to} className="btn btn-sm">
          {name}
        </Link>
      ))}
    </nav>
  );
}

/** What the schools that are not in force would say, on demand. */
function OtherSchools({ movement, force }: { movement: Movement; force: RulesInForce }) {
  const other = otherSchools(movement, force.tags);
  const parts = [
    ...other.cues.map((cue) => ({ tag: cue.houseRule, text: `“${cue.text}”` })),
    ...other.faults.map((fault) => ({ tag: fault.houseRule, text: say.library.fault(fault.name) })),
  ];
  if (parts.length === 0) return null;
  return (
    <details className="mt-1">
      <summary className="quiet cursor-pointer">{say.library.otherSchoolsWouldSay(parts.length)}</summary>
      <ul className="ruled mt-1 max-w-3xl">
        {parts.map(({ tag, text }) => {
          const [ruleId, optionId] = (tag ?? '').split('/');
          const rule = force.rules.find((one) => one.id === ruleId);
          const option = rule?.options.find((one) => one.id === optionId);
          return (
            <li key={`${tag} ${text}`} className="py-1.5">
              <span className="font-semibold">{text}</span>
              <span className="quiet block text-sm">
                {rule?.matter}: {option?.name}. {option?.reason}
              </span>
            </li>
          );
        })}
      </ul>
    </details>
  );
}

const Heading = ({ id, children }: { id: string; children: ReactNode }) => (
  <h2 id={id} className="border-base-content mb-1 border-b-2 pb-1">
    {children}
  </h2>
);

function Phases({ movement }: { movement: Movement }) {
  return (
    <section aria-label={say.library.phasesAndCues}>
      <ol className="grid gap-x-4 gap-y-4 sm:grid-cols-2 lg:flex">
        {movement.phases.map((phase, i) => (
          <li key={phase} className="border-base-content min-w-0 flex-1 border-t-2 pt-1">
            <h3 className="font-bold">
              <span className="quiet mr-1 font-normal">{i + 1}</span> {label(phase)}
            </h3>
            <ul className="mt-1 space-y-2">
              {movement.cues
                .filter((cue) => cue.phase === phase)
                .map((cue) => (
                  <li key={cue.id} className="flex gap-2 leading-snug">
                    <span className="pt-0.5">
                      <FocusMark focus={cue.focus} />
                    </span>
                    <span>
                      {cueWords(cue)}
                      {cue.channel !== 'say' && (
                        <span className="quiet text-sm">{say.library.channelOfIt(cue.channel)}</span>
                      )}
                    </span>
                  </li>
                ))}
            </ul>
          </li>
        ))}
      </ol>
      <p className="quiet mt-2">
        {movement.how && <span className="mb-1 block max-w-[65ch]">{movement.how}</span>}
        <span className="font-bold">{say.library.breath}</span> · {movement.breath}
      </p>
    </section>
  );
}

function Faults({ movement }: { movement: Movement }) {
  // A search for a fault leads here with the fault open.
  const opened = useSearchParams()[0].get('fault');
  return (
    <section aria-labelledby="faults">
      <Heading id="faults">{say.common.faults}</Heading>
      <ul className="ruled">
        {movement.faults.map((fault) => (
          <li key={fault.id}>
            <details className="group py-1.5" open={fault.id === opened}>
              <summary className="hover:bg-base-200 grid cursor-pointer grid-cols-[20px_1fr_auto] items-start gap-x-3 px-1">
                <span className="pt-1">
                  <SeverityMark severity={fault.severity} />
                </span>
                <span>
                  <span className="font-semibold">{fault.name}</span>
                  <span className="quiet block text-sm leading-snug">{fault.looksLike}</span>
                </span>
                <span className="text-right text-sm leading-tight">
                  <span className="block font-semibold">{viewWords(bestView(fault), movement.position)}</span>
                  <span className="quiet">{label(fault.phase)}</span>
                </span>
              </summary>
              <Corrections fault={fault} movement={movement} />
            </details>
          </li>
        ))}
      </ul>
      <p className="quiet mt-2 text-sm">{say.library.openAFaultForIts}</p>
    </section>
  );
}

function Corrections({ fault, movement }: { fault: Fault; movement: Movement }) {
  const kind = useQuery(faultKindsQuery).data?.find(({ id }) => id === fault.kind);
  return (
    <div className="mt-2 ml-8 space-y-2">
      {kind && <p className="max-w-[65ch] text-sm">{kind.means}</p>}
      <p className="text-sm">
        <span className="font-bold">{SEVERITY_WORDS[fault.severity]}.</span>
        {say.library.oftenFrom(fault.causes.map(causeWords).join(', '))}
      </p>
      <ol className="space-y-1">
        {fault.corrections.map((correction) => {
          const spoken = spokenOf(correction, movement.cues);
          return (
            <li key={correction.id} className="grid grid-cols-[5rem_1fr] gap-2">
              <span className="font-semibold">{label(correction.kind)}</span>
              <span>
                {spoken !== null && <span className="font-semibold">“{spoken}” </span>}
                {correction.do}{' '}
                {correction.swapTo && (
                  <Link className="link" to={`/library/${correction.swapTo}`}>
                    {label(correction.swapTo)}
                  </Link>
                )}
              </span>
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function Ladder({ page }: { page: MovementPage }) {
  const none = page.easier.length + page.harder.length + page.sideways.length === 0;
  return (
    <section aria-labelledby="ladder">
      <Heading id="ladder">{say.library.easierAndHarder}</Heading>
      {none && <p className="quiet py-2">{say.library.thisMovementIsNotLinked}</p>}
      <ul className="ruled">
        {(['harder', 'sideways', 'easier'] as const).flatMap((direction) =>
          page[direction].map((neighbour) => (
            <NeighbourRow key={neighbour.to} neighbour={neighbour} direction={direction} />
          )),
        )}
      </ul>
    </section>
  );
}

const NeighbourRow = ({ neighbour, direction }: { neighbour: Neighbour; direction: Direction }) => (
  <li className="flex gap-3 py-1.5">
    <span className="pt-1">
      <LadderMark direction={direction} size={16} />
    </span>
    <span>
      <span className="sr-only">{label(direction)}: </span>
      <Link className="link font-semibold" to={`/library/${neighbour.to}`}>
        {neighbour.name}
      </Link>
      <span className="quiet"> · {leverWords(neighbour.lever, direction)}</span>
      {direction === 'harder' && neighbour.readyWhen && (
        <span className="quiet block text-sm" title={signWords(neighbour.readyWhen)}>
          {say.library.ready(signBrief(neighbour.readyWhen))}
        </span>
      )}
    </span>
  </li>
);

function Facts({ movement }: { movement: Movement }) {
  const { dose } = movement;
  const unit = UNIT_WORDS[dose.mode];
  return (
    <section aria-labelledby="facts">
      <Heading id="facts">{say.library.whatItTakes}</Heading>
      <table className="w-full [&_td]:pr-2 [&_td]:whitespace-nowrap [&_th]:pr-2 [&_th]:text-left [&_th]:font-normal">
        <thead className="quiet text-sm">
          <tr>
            <th>{say.library.forPurpose}</th>
            <th>
              {say.library.sets(unit)}
              {movement.sides === 'each' && say.common.aSide}
            </th>
            <th>{say.library.rest}</th>
            <th>{say.library.aSet}</th>
          </tr>
        </thead>
        <tbody>
          {Object.entries(dose.windows).map(([purpose, { low, high, sets, rest }]) => (
            <tr key={purpose}>
              <th scope="row">{inWords(purpose)}</th>
              <td>
                {sets[0] === sets[1] ? sets[0] : `${sets[0]}–${sets[1]}`} × {low}–{high}
              </td>
              <td>{say.common.inSeconds(rest)}</td>
              <td>{say.common.inSeconds(setSeconds(dose, movement.sides, high))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="ruled [&>div]:grid [&>div]:grid-cols-[4.5rem_1fr] [&>div]:gap-2 [&>div]:py-1 [&_dt]:font-bold">
        {dose.mode === 'reps' && (
          <div>
            <dt>{say.common.tempo}</dt>
            <dd>
              {dose.tempo} <span className="quiet text-sm">{say.library.lowerPauseRisePause}</span>
            </dd>
          </div>
        )}
        <div>
          <dt>{say.library.sides}</dt>
          <dd>{SIDES_WORDS[movement.sides]}</dd>
        </div>
        <div>
          <dt>{say.common.kit}</dt>
          <dd>{kitWords(movement.kit)}</dd>
        </div>
        {movement.setUp.length > 0 && (
          <div>
            <dt>{say.library.setUp}</dt>
            <dd>{movement.setUp.map(inWords).join(', ')}</dd>
          </div>
        )}
        {movement.precursors.length > 0 && (
          <div>
            <dt>{say.common.first}</dt>
            <dd>
              {movement.precursors.map((id) => (
                <Link key={id} className="link mr-2" to={`/library/${id}`}>
                  {label(id)}
                </Link>
              ))}
            </dd>
          </div>
        )}
        <div>
          <dt>{say.common.muscles}</dt>
          <dd>
            {movement.muscles.prime.map(inWords).join(', ')}
            <span className="quiet"> · {movement.muscles.assist.map(inWords).join(', ')}</span>
          </dd>
        </div>
        <div>
          <dt>{say.library.direction}</dt>
          <dd>{movement.planes.map((plane) => PLANE_WORDS[plane]).join(', ')}</dd>
        </div>
      </dl>
    </section>
  );
}

function Asks({ movement }: { movement: Movement }) {
  const demands = demandList(movement.demands);
  return (
    <section aria-labelledby="asks">
      <Heading id="asks">{say.library.asksFor}</Heading>
      {demands.length === 0 ? (
        <p className="py-1.5">{say.library.nothingSpecial}</p>
      ) : (
        <ul className="ruled">
          {demands.map((demand) => (
            <li key={demand} className="py-1">
              {demand}
            </li>
          ))}
        </ul>
      )}
      <ShowsMore figureId={figureIdOf(movement)} demands={movement.demands} />
      {movement.feel && (
        <p className="mt-2">
          <span className="font-bold">{say.library.youShouldFeel}</span> {movement.feel.expected}{' '}
          <span className="font-bold">{say.common.stopAt}</span> {movement.feel.stop}
        </p>
      )}
      {movement.cautions.length > 0 && (
        <p className="mt-2">
          <span className="font-bold">{say.library.caution}</span> {movement.cautions.join(' ')}
        </p>
      )}
      <Rulings movement={movement} />
    </section>
  );
}
