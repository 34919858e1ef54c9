/** Before a session: how somebody slept, how much energy there is, and where it is sore or hurts. It limits today and nothing else. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import {
  type Client,
  easeOf,
  EMERGENCY_ADVICE,
  limitsOfToday,
  PAIN_ADVICE,
  type TodayCheck,
} from '@waxwing/core/client';
import { demandWords, label } from '@waxwing/core/movement';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';

import { call } from '../api/http';
import { clientQuery, keepClient } from '../api/queries';
import { PageHead } from '../shell/page';
import { Await, Wrong } from '../shell/states';
import { today } from '../words/dates';
import { easeWords } from '../words/reasons';
import { say } from '../words/say';
import { BodyOutline, placeWords, QUALITY_WORDS } from './body-outline';

export function CheckScreen() {
  const { clientId = '' } = useParams();
  return (
    <Await query={useQuery({ ...clientQuery(clientId), staleTime: 0 })} what={say.common.theClient}>
      {(client) => <Check key={client.version} client={client} />}
    </Await>
  );
}

const SCALE = [1, 2, 3, 4, 5] as const;
const SLEEP = ['hardly', 'badly', 'fairly', 'well', say.people.veryWell];
const ENERGY = ['none', 'little', 'some', 'good', 'plenty'];

function Check({ client }: { client: Client }) {
  const day = today();
  const [check, setCheck] = useState<TodayCheck>(
    client.today?.on === day ? client.today : { on: day, sleep: 4, energy: 4, pains: [] },
  );
  const queries = useQueryClient();
  const navigate = useNavigate();
  const save = useMutation({
    mutationFn: () => call('PATCH /clients/{id}', { id: client.id, body: { version: client.version, today: check } }),
    onSuccess: async (saved) => {
      keepClient(queries, saved);
      await navigate(-1);
    },
  });
  const limits = limitsOfToday(check, day);
  const ease = easeOf(check, day);
  return (
    <div className="page space-y-6">
      <PageHead title={say.people.whoToday(client.name)} back={{ to: `/people/${client.id}`, name: client.name }} />
      <div className="grid gap-8 md:grid-cols-2">
        <div className="space-y-6">
          <Scale
            title={say.people.slept}
            words={SLEEP}
            value={check.sleep}
            onChange={(sleep) => setCheck({ ...check, sleep })}
          />
          <Scale
            title={say.people.energy}
            words={ENERGY}
            value={check.energy}
            onChange={(energy) => setCheck({ ...check, energy })}
          />
          <section>
            <h2 className="border-base-content mb-2 border-b-2 pb-1">{say.people.whatThatMeansToday}</h2>
            {limits.length === 0 && !ease && <p className="quiet">{say.people.nothingIsHeldBack}</p>}
            {ease && <p>{say.people.nothingGoesUp(easeWords(ease))}</p>}
            <ul>
              {[...new Map(limits.map((limit) => [limit.demand, limit])).values()].map((limit) => (
                <li key={limit.demand}>
                  <span className="font-semibold">{label(demandWords(limit.demand))}</span>
                  {say.people.noneALittle(limit.allowed)}
                  <span className="quiet">· {limit.reason}</span>
                </li>
              ))}
            </ul>
            {check.pains.some(({ quality }) => quality === 'sharp') && (
              <p className="text-error mt-2 font-bold">{PAIN_ADVICE.sharp}</p>
            )}
            <p className="quiet mt-2 text-sm">{EMERGENCY_ADVICE}</p>
          </section>
          <div className="flex gap-2">
            <button type="button" className="btn btn-primary" disabled={save.isPending} onClick={() => save.mutate()}>
              {say.people.saveForToday}
            </button>
            <button type="button" className="btn btn-ghost" onClick={() => void navigate(-1)}>
              {say.common.cancel}
            </button>
          </div>
          <Wrong error={save.error} />
        </div>
        <div>
          <p className="quiet mb-2">{say.people.pressAPlaceOnceSore}</p>
          <BodyOutline pains={check.pains} onChange={(pains) => setCheck({ ...check, pains })} />
          <ul className="mt-3" aria-label={say.people.placesMarked}>
            {check.pains.map((pain) => (
              <li key={`${pain.region} ${pain.side}`}>
                {label(placeWords(pain))}: {QUALITY_WORDS[pain.quality]}
              </li>
            ))}
          </ul>
        </div>
      </div>
    </div>
  );
}

function Scale({
  title,
  words,
  value,
  onChange,
}: {
  title: string;
  words: readonly string[];
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-xl font-bold">
        {title} <span className="quiet text-base font-normal">{words[value - 1]}</span>
      </legend>
      <div className="flex gap-2">
        {SCALE.map((n) => (
          <label key={n} className={`btn h-12 w-12 ${n === value ? 'btn-primary' : ''}`} title={words[n - 1]}>
            <input
              autoComplete="off"
              type="radio"
              className="sr-only"
              name={title}
              aria-label={`${title}: ${words[n - 1]}`}
              checked={n === value}
              onChange={() => onChange(n)}
            />
            {n}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
