/** What could stand in for a movement: a reason, a client and a kit in; ranked answers with reasons out, and what was ruled out by what. */
import { useQuery } from '@tanstack/react-query';
import { buildCatalog, type Catalog, SWAP_REASONS, type SwapReason } from '@waxwing/core/ladder';
import {
  HOUSEHOLD,
  inWords,
  kitCounts,
  type KitItem,
  label,
  type MovementSummary,
  type Region,
  REGIONS,
} from '@waxwing/core/movement';
import { NOTHING_LEFT, type Standing, standingOf, swapsFor } from '@waxwing/core/progress';
import { useMemo } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';

import { clientOnDayQuery, clientsQuery, movementsQuery, studioQuery } from '../api/queries';
import { Still } from '../figures/still';
import { PageHead } from '../shell/page';
import { Await, Empty } from '../shell/states';
import { useSetParam } from '../shell/use-set-param';
import { today } from '../words/dates';
import { LadderMark } from '../words/ladder-mark';
import { easeWords } from '../words/reasons';
import { say } from '../words/say';
import { REASON_WORDS, ruledOutWords, swapWords } from '../words/swap-words';
import { NotAsked, useStanding } from './use-standing';

export function SwapScreen() {
  const { movementId = '' } = useParams();
  return (
    <Await query={useQuery(movementsQuery)} what={say.library.theLibrary}>
      {(movements) => {
        const from = movements.find(({ id }) => id === movementId);
        return from ? (
          <Swap from={from} movements={movements} />
        ) : (
          <Empty title={say.library.thereIsNoSuchMovement}>
            <Link className="btn btn-primary" to="/library">
              {say.common.toTheLibrary}
            </Link>
          </Empty>
        );
      }}
    </Await>
  );
}

const KITS = say.library.kits;
type KitChoice = keyof typeof KITS;

/** Nobody in particular: nothing is limited. */
const ANYBODY = standingOf({ limits: [], ease: null }, NOTHING_LEFT);

function Swap({ from, movements }: { from: MovementSummary; movements: readonly MovementSummary[] }) {
  const [params] = useSearchParams();
  const catalog = useMemo(() => buildCatalog(movements), [movements]);
  const byId = useMemo(() => new Map(movements.map((movement) => [movement.id, movement])), [movements]);
  const clients = useQuery(clientsQuery).data ?? [];
  const clientId = params.get('client') ?? '';
  const client = useQuery({ ...clientOnDayQuery(clientId, today()), enabled: clientId !== '' }).data;
  const studio = useQuery(studioQuery).data;
  const reason = SWAP_REASONS.find((one) => one === params.get('reason')) ?? 'too-hard';
  const region: Region = REGIONS.find((one) => one === params.get('region')) ?? 'knee';
  const kitChoice = (params.get('kit') ?? 'studio') as KitChoice;
  const kit: Readonly<Record<KitChoice, ReadonlyMap<KitItem, number>>> = {
    studio: kitCounts(studio?.kit ?? []),
    client: kitCounts(client?.kit ?? []),
    home: new Map(HOUSEHOLD.map((item) => [item, Infinity])),
    none: kitCounts([]),
  };
  const choose = useSetParam();
  const asked = useStanding(clientId);
  return (
    <div className="page">
      <PageHead
        title={say.library.insteadOf(from.name.toLowerCase())}
        back={{ to: `/library/${from.id}`, name: from.name }}
      />
      <div role="group" aria-label={say.common.why} className="mb-3 flex flex-wrap gap-1.5">
        {SWAP_REASONS.map((one: SwapReason) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === reason}
            className={`btn ${one === reason ? 'btn-primary' : ''}`}
            onClick={() => choose('reason', one)}
          >
            {REASON_WORDS[one]}
          </button>
        ))}
      </div>
      <div role="group" aria-label={say.library.forWhomAndWithWhat} className="mb-6 flex flex-wrap gap-2">
        {reason === 'pain' && (
          <select
            className="select w-auto"
            aria-label={say.library.whereItHurts}
            value={region}
            onChange={(event) => choose('region', event.target.value)}
          >
            {REGIONS.map((one) => (
              <option key={one} value={one}>
                {label(one)}
              </option>
            ))}
          </select>
        )}
        <select
          className="select w-auto"
          aria-label={say.library.forWhom}
          value={clientId}
          onChange={(event) => choose('client', event.target.value)}
        >
          <option value="">{say.library.forAnybody}</option>
          {clients.map(({ id, name }) => (
            <option key={id} value={id}>
              {say.library.forWhomNamed(name)}
            </option>
          ))}
        </select>
        <select
          className="select w-auto"
          aria-label={say.library.withWhichKit}
          value={kitChoice}
          onChange={(event) => choose('kit', event.target.value)}
        >
          {Object.entries(KITS)
            .filter(([value]) => value !== 'client' || client)
            .map(([value, name]) => (
              <option key={value} value={value}>
                {name}
              </option>
            ))}
        </select>
      </div>
      {asked.unknown ? (
        <NotAsked {...asked} />
      ) : (
        <Answers
          from={from}
          catalog={catalog}
          byId={byId}
          reason={reason}
          region={region}
          standing={asked.standing ?? ANYBODY}
          kit={kit[kitChoice] ?? kit.studio}
        />
      )}
    </div>
  );
}

/** What can be done instead, best first, and what was left out and why. */
function Answers({
  from,
  catalog,
  byId,
  reason,
  region,
  standing,
  kit,
}: {
  from: MovementSummary;
  catalog: Catalog;
  byId: ReadonlyMap<string, MovementSummary>;
  reason: SwapReason;
  region: Region;
  standing: Standing;
  kit: ReadonlyMap<KitItem, number>;
}) {
  const held = standing.ease;
  const { ranked, ruledOut } = swapsFor(catalog, {
    from: from.id,
    reason,
    region,
    standing,
    held: held !== null,
    kit,
    most: 8,
  });
  return (
    <div className="grid gap-8 lg:grid-cols-[3fr_2fr]">
      <section aria-labelledby="instead">
        <h2 id="instead" className="border-base-content border-b-2 pb-1">
          {say.library.bestFirst}
        </h2>
        {ranked.length === 0 && (
          <p className="py-3">
            {held && reason === 'too-easy'
              ? say.common.nothingHarderNow(easeWords(held))
              : say.library.nothingInTheLibraryFits}
          </p>
        )}
        <ol className="ruled">
          {ranked.map((answer) => (
            <li key={answer.id} className="flex gap-3 py-2.5">
              <span className="pt-1">
                <LadderMark direction={!answer.levels ? 'sideways' : answer.levels < 0 ? 'easier' : 'harder'} />
              </span>
              <Still movement={byId.get(answer.id) ?? { id: answer.id }} className="h-12 w-12 shrink-0" />
              <span>
                <Link className="link text-lg font-semibold" to={`/library/${answer.id}`}>
                  {answer.name}
                </Link>
                <span className="quiet block">{swapWords(answer.why)}</span>
              </span>
            </li>
          ))}
        </ol>
        {reason === 'pain' && <p className="quiet mt-4">{say.library.sharpPainEndsTheMovement(inWords(region))}</p>}
      </section>
      <section aria-labelledby="ruled-out">
        <h2 id="ruled-out" className="border-base-content border-b-2 pb-1">
          {say.library.ruledOut}
        </h2>
        {ruledOut.length === 0 && <p className="quiet py-3">{say.library.nothingNearWasRuledOut}</p>}
        <ul className="ruled">
          {ruledOut.map((out) => (
            <li key={out.id} className="py-2">
              <span className="font-semibold">{out.name}</span> <span className="quiet">· {ruledOutWords(out.by)}</span>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
