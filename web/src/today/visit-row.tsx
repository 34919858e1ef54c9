/** One hour of the day: when, who, with which plan, what to know first, and the way to the floor. */
import { useDraggable } from '@dnd-kit/core';
import type { ClientSummary } from '@waxwing/core/client';
import { GripVertical } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';

import { StartSession } from '../floor/start-session';
import { localField, timeWords } from '../words/dates';
import { say } from '../words/say';
import type { Visit } from './day';
import { MovePlan } from './move-plan';
import { Notes } from './notes';

interface Row {
  visit: Visit;
  clients: readonly ClientSummary[];
  /** It is the day on which one may start. */
  isToday: boolean;
  /** Whoever is on the floor, or comes next. */
  isNext: boolean;
  mayPlan: boolean;
}

export function VisitRow({ visit, clients, isToday, isNext, mayPlan }: Row) {
  const { plan, at, state } = visit;
  const who = visit.clientIds.flatMap((id) => clients.find((client) => client.id === id) ?? []);
  return (
    <li
      className={`grid gap-x-5 gap-y-2 py-4 pl-3 md:grid-cols-[6.5rem_1fr_auto] ${state === 'running' ? 'now-band' : ''}`}
    >
      <div className="flex items-start gap-1">
        {plan && mayPlan && state !== 'running' && state !== 'done' && <Handle id={plan.id} name={plan.name} />}
        <div>
          <p className="text-2xl font-bold">{at ? timeWords(at.toISOString()) : say.today.anyTime}</p>
          {STATE_WORDS[state] && <p className="quiet">{STATE_WORDS[state]}</p>}
        </div>
      </div>
      <div className="min-w-0">
        <div className={`grid gap-x-8 gap-y-3 ${who.length > 1 ? 'lg:grid-cols-2' : ''}`}>
          {who.map((client) => (
            <div key={client.id} className="min-w-0">
              <p className="text-2xl font-bold">
                <Link className="hover:underline" to={`/people/${client.id}`}>
                  {client.name}
                </Link>
              </p>
              {state !== 'done' && <Notes client={client} checks={isToday} />}
            </div>
          ))}
        </div>
        <PlanLine visit={visit} mayPlan={mayPlan} />
      </div>
      <div className="flex items-start gap-2 md:justify-end">
        <Go visit={visit} isToday={isToday} isNext={isNext} mayPlan={mayPlan} />
      </div>
    </li>
  );
}

const STATE_WORDS: Readonly<Record<Visit['state'], string>> = say.today.stateWords;

/** A plan that takes less of its time than this is thin. */
const THIN = 0.7;

function PlanLine({ visit: { plan, state }, mayPlan }: { visit: Visit; mayPlan: boolean }) {
  const [moving, setMoving] = useState(false);
  if (!plan) return state === 'usual' ? <p className="quiet mt-1">{say.today.noPlanYet}</p> : null;
  const thin = plan.filled < THIN * plan.minutes;
  return (
    <p className="mt-1">
      <span className="quiet">{say.today.plan}</span>
      <Link className="link" to={`/plan/${plan.id}`}>
        {plan.name}
      </Link>{' '}
      <span className={thin && state !== 'done' ? 'font-bold' : 'quiet'}>
        {plan.filled === 0 ? say.common.stillEmpty : say.today.filled(plan.filled, plan.minutes, thin)}
      </span>
      {mayPlan && state !== 'running' && state !== 'done' && (
        <>
          {' '}
          <button type="button" className="link quiet ml-2" onClick={() => setMoving(true)}>
            {say.today.moveOrRepeat}
          </button>
        </>
      )}
      {moving && <MovePlan plan={plan} onClose={() => setMoving(false)} />}
    </p>
  );
}

/** The one thing to do next. */
function Go({ visit, isToday, isNext, mayPlan }: Omit<Row, 'clients'>) {
  const { state, plan, clientIds, sessionId, at } = visit;
  if (state === 'running')
    return (
      <Link className="btn btn-primary btn-lg" to={`/floor/${sessionId}`}>
        {say.common.goOn}
      </Link>
    );
  if (state === 'done')
    return (
      <Link className="btn" to={`/review/${sessionId}`}>
        {say.common.review}
      </Link>
    );
  const asked = new URLSearchParams(clientIds.map((id): [string, string] => ['client', id]));
  if (at) asked.set('at', localField(at));
  return (
    <>
      {state === 'usual' && mayPlan && (
        <Link className={`btn ${isToday ? '' : 'btn-primary'}`} to={`/plan/new?${asked}`}>
          {say.today.makeAPlan}
        </Link>
      )}
      {isToday && (
        <StartSession clientIds={clientIds} quiet={!isNext} {...(plan && { planId: plan.id })}>
          {plan ? say.common.start : say.today.startWithout}
        </StartSession>
      )}
      {!isToday && plan && mayPlan && (
        <Link className="btn" to={`/plan/${plan.id}`}>
          {say.today.openThePlan}
        </Link>
      )}
    </>
  );
}

/** Carried to another day of the week; by keyboard it is moved with "Move or repeat". */
function Handle({ id, name }: { id: string; name: string }) {
  const { setNodeRef, listeners, transform } = useDraggable({ id });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      aria-hidden
      title={say.today.dragToAnotherDay(name)}
      className="text-base-content/70 relative z-10 mt-1 cursor-grab touch-none"
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <GripVertical size={22} />
      {transform && (
        <span className="bg-base-100 border-base-content absolute top-0 left-6 border-2 px-2 py-1 whitespace-nowrap">
          {name}
        </span>
      )}
    </span>
  );
}
