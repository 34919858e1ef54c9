/** Who comes, how long there is, and what to begin from; everything else can be changed afterwards. */
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { AT_STUDIO, placeKey, type PlaceRef } from '@waxwing/core/client';
import { inWords, type Pattern, PATTERNS, type Purpose, type Space } from '@waxwing/core/movement';
import {
  type Block,
  carryForward,
  DAY_MINUTES,
  emptyPlan,
  lastVisit,
  MOST_CLIENTS,
  type Plan,
} from '@waxwing/core/planning';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { v7 as uuidv7 } from 'uuid';

import { call } from '../api/http';
import { clientsQuery, planQuery, plansChanged, plansQuery } from '../api/queries';
import { PageHead } from '../shell/page';
import { Empty, Failed } from '../shell/states';
import { nextSlot } from '../today/day';
import { dayWords, localField } from '../words/dates';
import { firstName } from '../words/names';
import { PlaceField } from '../words/place-field';
import { leftOutWords, suggestWords } from '../words/plan-words';
import { say } from '../words/say';
import { forPeople } from './edit';
import { faultIn, type FaultNames } from './fault-in';
import { faultNames } from './fault-names';
import { AimField, RoomField } from './fields';
import { namesIn } from './names-in';
import { useWorld, type World, worldAt } from './use-world';

const STARTS = ['suggest', 'carry', 'empty', 'template'] as const;
type Start = (typeof STARTS)[number];

const START_WORDS: Readonly<Record<Start, readonly [name: string, what: string]>> = {
  suggest: [say.plan.suggestASession, say.plan.patternsThatWereNeglectedThe],
  carry: [say.plan.carryLastTimeForward, say.plan.theSameMovementsWithWhat],
  template: [say.plan.fromATemplate, say.plan.itsLinesWithADose],
  empty: [say.plan.startEmpty, say.plan.addMovementsByHand],
};

/** Next full hour, as a date field has it, in the zone of this device. */
function nextHour(): string {
  const at = new Date(Date.now() + 3_600_000);
  at.setMinutes(0, 0, 0);
  return localField(at);
}

export function NewPlanScreen() {
  const clients = useQuery(clientsQuery).data;
  const kept = useInfiniteQuery(plansQuery('templates'));
  const templates = kept.data ?? [];
  const [params] = useSearchParams();
  const [chosen, choose] = useState<string[]>(params.getAll('client'));
  const [minutes, setMinutes] = useState('60');
  const [purpose, setPurpose] = useState<Purpose>('strength');
  const [space, setSpace] = useState<Space>('lane');
  const [where, setWhere] = useState<PlaceRef>(AT_STUDIO);
  const [said, tell] = useState(params.get('at'));
  const [start, setStart] = useState<Start>('suggest');
  const [wanted, want] = useState<Pattern[]>([]);
  const [template, setTemplate] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const { world, error } = useWorld(chosen);
  const [hour] = useState(nextHour);
  const first = clients?.find(({ id }) => id === chosen[0]);
  const usual = useMemo(() => first && nextSlot(first, new Date()), [first]);
  // Whoever is chosen first comes when they usually do, until the trainer says otherwise.
  const at = said ?? (usual ? localField(usual) : hour);
  // Nobody meets in the home of somebody who does not come.
  const known = world?.places.some(({ ref }) => placeKey(ref) === placeKey(where));
  const here = world && worldAt(world, known ? where : AT_STUDIO);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const head = <PageHead title={say.common.planASession} back={{ to: '/plan', name: say.common.plan }} />;
  if (error) return <Failed error={error} />;
  if (clients?.length === 0)
    return (
      <div className="page page-reading">
        {head}
        <Empty title={say.plan.nobodyToPlanForYet}>
          <Link className="btn btn-primary" to="/people/new">
            {say.common.addAClient}
          </Link>
        </Empty>
      </div>
    );

  const length = Number(minutes);
  const wrong = !Number.isInteger(length) || length < 5 || length > DAY_MINUTES;
  const toggle = <T,>(all: readonly T[], one: T): T[] =>
    all.includes(one) ? all.filter((other) => other !== one) : [...all, one];

  const make = async (here: World): Promise<{ plan: Plan; reasons: string[] }> => {
    const names = here.clients.map(firstName).join(say.common.and);
    const startsAt = at ? new Date(at).toISOString() : null;
    const base: Plan = {
      ...emptyPlan(chosen, length),
      name: `${names}, ${startsAt ? dayWords(startsAt) : say.plan.anyDay}`,
      startsAt,
      purpose,
      place: here.place.ref,
      space,
    };
    if (start === 'template') {
      const { name, blocks, note } = await queries.fetchQuery(planQuery(template));
      const plan = forPeople(here, { ...base, blocks, note }, chosen);
      return { plan: { ...plan, name: `${names}: ${name}`.slice(0, 80) }, reasons: [] };
    }
    const { blocks, reasons } = await blocksFor(
      here,
      start,
      { minutes: length, purpose, space, wanted },
      await faultNames(queries, here),
    );
    return { plan: { ...base, blocks }, reasons };
  };
  const submit = async (here: World) => {
    setBusy(true);
    setProblem(null);
    try {
      const made = await make(here);
      const plan = await call('POST /plans', { body: { id: uuidv7(), plan: made.plan } });
      queries.setQueryData(planQuery(plan.id).queryKey, plan);
      void plansChanged(queries);
      await navigate(`/plan/${plan.id}`, { state: { reasons: made.reasons } });
    } catch (failed) {
      setProblem(failed instanceof Error ? failed.message : String(failed));
      setBusy(false);
    }
  };

  return (
    <form
      className="page page-reading space-y-6"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        if (here) void submit(here);
      }}
    >
      {head}
      <fieldset>
        <legend className="mb-1 text-xl font-bold">{say.plan.whoComes}</legend>
        <div className="flex flex-wrap gap-2">
          {(clients ?? []).map(({ id, name }) => (
            <label key={id} className={`btn h-auto min-h-11 py-1 ${chosen.includes(id) ? 'btn-primary' : ''}`}>
              <input
                type="checkbox"
                className="sr-only"
                checked={chosen.includes(id)}
                disabled={!chosen.includes(id) && chosen.length >= MOST_CLIENTS}
                onChange={() => choose(toggle(chosen, id))}
              />
              {name}
            </label>
          ))}
        </div>
      </fieldset>
      <div className="grid gap-4 sm:grid-cols-2 md:grid-cols-4">
        <label>
          <span className="quiet block text-sm">{say.common.minutes}</span>
          <input
            className="input w-full"
            inputMode="numeric"
            value={minutes}
            aria-invalid={wrong}
            onChange={(event) => setMinutes(event.target.value)}
          />
          {wrong && (
            <span role="alert" className="text-error block text-sm">
              {say.plan.mustBe5ToA(DAY_MINUTES)}
            </span>
          )}
        </label>
        <AimField value={purpose} onChange={setPurpose} />
        <PlaceField
          places={world?.places ?? []}
          value={here?.place.ref ?? AT_STUDIO}
          onChange={(place) => {
            setWhere(place.ref);
            setSpace(place.space);
          }}
        />
        <RoomField value={space} onChange={setSpace} />
        <label className="sm:col-span-2">
          <span className="quiet block text-sm">{say.plan.when}</span>
          <input
            type="datetime-local"
            className="input w-full"
            value={at}
            onChange={(event) => tell(event.target.value)}
          />
        </label>
      </div>
      <fieldset>
        <legend className="mb-1 text-xl font-bold">{say.plan.beginWith}</legend>
        <div className="ruled">
          {STARTS.filter((one) => one !== 'template' || templates.length > 0).map((one) => (
            <label key={one} className="flex min-h-12 items-center gap-3 py-2">
              <input
                type="radio"
                name="start"
                className="radio"
                checked={start === one}
                onChange={() => {
                  setStart(one);
                  if (one === 'template') setTemplate(templates[0]?.id ?? '');
                }}
              />
              <span>
                <span className="font-semibold">{START_WORDS[one][0]}</span>
                <span className="quiet block text-sm">{START_WORDS[one][1]}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      {start === 'suggest' && (
        <fieldset>
          <legend className="mb-1 font-bold">{say.plan.patternsItMustHaveIf}</legend>
          <div className="flex flex-wrap gap-2">
            {PATTERNS.filter((one) => !['brace', 'mobilise', 'travel'].includes(one)).map((one) => (
              <label key={one} className={`btn btn-sm h-10 ${wanted.includes(one) ? 'btn-primary' : ''}`}>
                <input
                  type="checkbox"
                  className="sr-only"
                  checked={wanted.includes(one)}
                  onChange={() => want(toggle(wanted, one))}
                />
                {inWords(one)}
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {start === 'template' && (
        <label className="block">
          <span className="mb-1 block font-bold">{say.plan.template}</span>
          <select className="select" value={template} onChange={(event) => setTemplate(event.target.value)}>
            {templates.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      {problem && (
        <p role="alert" className="text-error">
          {problem}
        </p>
      )}
      <button type="submit" className="btn btn-primary" disabled={chosen.length === 0 || wrong || busy || !here}>
        {busy ? say.plan.workingItOut : say.plan.makeThePlan}
      </button>
      {chosen.length === 0 && <p className="quiet">{say.plan.chooseWhoComesFirstUp}</p>}
    </form>
  );
}

/** The first blocks of a plan. Carried forward they are exactly those of last time: filling the hour is another press. */
async function blocksFor(
  world: World,
  start: Start,
  { minutes, purpose, space, wanted }: { minutes: number; purpose: Purpose; space: Space; wanted: Pattern[] },
  faults: FaultNames,
): Promise<{ blocks: Block[]; reasons: string[] }> {
  if (start === 'empty') return { blocks: [], reasons: [] };
  const { suggestClients: clients, movements } = world;
  const { kit } = world.place;
  if (start === 'carry') {
    const { blocks, leftOut } = carryForward({
      clients,
      movements,
      kit,
      purpose,
      newId: uuidv7,
      faultOf: faultIn(faults),
    });
    const fresh = clients.filter(({ sets }) => lastVisit(sets).length === 0);
    const reasons = [
      ...leftOut.map((one) => leftOutWords(one, namesIn(world))),
      ...fresh.map(({ name }) => say.plan.hasNoLastTimeTo(name)),
    ];
    return { blocks, reasons };
  }
  const now = new Date().toISOString();
  const { blocks, reasons } = await world.planner.suggest(
    {
      minutes,
      purpose,
      clients,
      kit,
      space,
      wanted,
      without: [],
      blocks: [],
      notThese: [],
      now,
    },
    faults,
  );
  return { blocks, reasons: reasons.map((reason) => suggestWords(reason, namesIn(world))) };
}
