/** What somebody may not do: by the condition behind it, and what was noted alone. A condition ends by somebody's word, and that is kept. */
import { useQuery } from '@tanstack/react-query';
import {
  type Client,
  conditionsHeld,
  type Held,
  limitsFromPain,
  type OpenPain,
  type PainAtPlace,
  painsByPlace,
  withoutCondition,
} from '@waxwing/core/client';
import { demandWords, isRuling, label, type Limit, limitsOn } from '@waxwing/core/movement';
import { useState } from 'react';

import { conditionsQuery, recordQuery } from '../api/queries';
import { Section } from '../shell/page';
import { dayWords, today } from '../words/dates';
import { say } from '../words/say';
import { PainOver } from './pain-over';
import { useEditClient } from './use-edit-client';
import { WhoseWord } from './whose-word';

const ALLOWED = ['none', 'a little', say.common.upToAClearAmount];

export function Limits({ client }: { client: Client }) {
  const { data: conditions = [] } = useQuery(conditionsQuery);
  const record = useQuery(recordQuery(client.id)).data;
  const pains = record?.pains ?? [];
  const alone = client.limits.filter(({ condition }) => !condition);
  return (
    <Section title={say.people.limits}>
      {/* Until the record is here nobody knows what hurts. */}
      {client.limits.length === 0 && record?.pains.length === 0 && (
        <p className="quiet">{say.people.noneNotedEveryMovementIs}</p>
      )}
      {painsByPlace(pains).map((pain) => (
        <HeldPain key={pain.place} clientId={client.id} pain={pain} pains={pains} />
      ))}
      <LimitList limits={alone} withReasons />
      {conditionsHeld(client.limits, conditions, today()).map((held) => (
        <HeldCondition key={held.condition} client={client} held={held} />
      ))}
      {client.cleared.length > 0 && (
        <>
          <h3 className="mt-4 font-bold">{say.people.whatEnded}</h3>
          <ul className="quiet text-sm">
            {client.cleared.map((one, i) => (
              <li key={i}>{say.people.endedOnTheWordOf(one.name, one.by, dayWords(one.on))}</li>
            ))}
          </ul>
        </>
      )}
    </Section>
  );
}

/** What a pain of an earlier session closes. */
function HeldPain({ clientId, pain, pains }: { clientId: string; pain: PainAtPlace; pains: readonly OpenPain[] }) {
  const name = say.common.painAt(pain.quality, pain.place ?? '');
  const own = pains.filter(({ id }) => pain.ids.includes(id));
  const demands = [...new Set(limitsFromPain(own).map(({ demand }) => demandWords(demand)))];
  return (
    <section className="border-error my-2 border-l-4 pl-3" aria-label={name}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h3 className="font-bold">
          {name}
          <span className="quiet font-normal">, {dayWords(pain.at)}</span>
        </h3>
        <PainOver clientId={clientId} pain={pain} />
      </div>
      <p>
        {pain.quality === 'sharp' ? say.people.staysClosedUntil : say.people.heldBackUntil} {demands.join(', ')}.
      </p>
    </section>
  );
}

/** What a limit's reason calls its condition, for one that the library has no more; as long as a name may be. */
const nameIn = ({ condition, limits: [first] }: Held): string =>
  (first?.reason.split(': ')[0]?.trim() || label(condition)).slice(0, 60);

function HeldCondition({ client, held }: { client: Client; held: Held }) {
  const { condition, known, since, limits, ask } = held;
  const [ending, end] = useState(false);
  const edit = useEditClient(client);
  const name = known?.name ?? nameIn(held);
  return (
    <section className="mt-3" aria-label={name}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-3">
        <h3 className="font-bold">
          {name}
          <span className="quiet font-normal">
            {', '}
            {since ? say.people.heldSince(known?.from, dayWords(since)) : say.people.heldSinceUnknown}
          </span>
        </h3>
        {!ending && (
          <button
            type="button"
            className="btn btn-sm"
            aria-label={say.people.endTheCondition(name)}
            onClick={() => end(true)}
          >
            {say.people.endIt}
          </button>
        )}
      </div>
      {ask && known && (
        <p className="border-warning my-1 border-l-4 pl-3 font-semibold">{say.people.itIsTimeToAsk(known.clearedBy)}</p>
      )}
      {ending && (
        <WhoseWord
          asks={say.people.whoseWordEndsIt}
          ends={say.people.endTheCondition(name)}
          pending={edit.isPending}
          error={edit.error}
          onSay={(by) =>
            edit.mutate({
              limits: withoutCondition(client.limits, condition),
              cleared: [...client.cleared, { condition, name, since, on: today(), by }],
            })
          }
          onCancel={() => end(false)}
        />
      )}
      <LimitList limits={limits} />
    </section>
  );
}

/** Limits one under the other, for whoever may not know more as well. */
export function LimitList({ limits, withReasons = false }: { limits: readonly Limit[]; withReasons?: boolean }) {
  const held = new Set(limitsOn(limits, today()));
  return (
    <ul className="ruled">
      {limits.map((limit, i) => (
        <li key={i} className={held.has(limit) ? 'py-2' : 'quiet py-2 line-through'}>
          <span className="text-lg font-semibold">{label(demandWords(limit.demand))}</span>
          {`: ${isRuling(limit.demand) ? say.people.closedToThem : (ALLOWED[limit.allowed] ?? '')}`}
          {(withReasons || limit.until) && (
            <span className="quiet block text-sm">
              {withReasons && limit.reason}
              {limit.until ? say.people.until(dayWords(limit.until)) : say.people.lasting}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
