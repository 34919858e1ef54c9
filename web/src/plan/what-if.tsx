/** What if: change the reps, how it felt or the weight, and see what the next set, the strength and the other weights say. */
import { useQuery } from '@tanstack/react-query';
import { atHand, bodyLoad, estimate, loadsFor, REPS_LEFT, ROUGH_REPS, sameEffort } from '@waxwing/core/dosage';
import { type Effort, EFFORTS, label, UNIT_WORDS, weightWords } from '@waxwing/core/movement';
import type { Plan } from '@waxwing/core/planning';
import { nextStep } from '@waxwing/core/progress';
import { useState } from 'react';

import { clientQuery } from '../api/queries';
import { whyWords } from '../words/reasons';
import { say } from '../words/say';
import { NumberField } from './fields';
import { namesIn } from './names-in';
import type { World } from './use-world';

export function WhatIf({ plan, world }: { plan: Plan; world: World }) {
  const lanes = plan.blocks
    .flatMap(({ items }) =>
      items.flatMap((item) => item.lanes.map((lane) => ({ key: `${item.id} ${lane.clientId}`, lane }))),
    )
    .filter(({ lane }) => world.context.find(lane.movementId) !== undefined);
  const [key, choose] = useState('');
  const chosen = lanes.find((one) => one.key === key) ?? lanes.find(({ lane }) => lane.load) ?? lanes[0];
  if (!chosen) return null;
  const name = (clientId: string) => world.clients.find(({ id }) => id === clientId)?.name ?? '';
  return (
    <section aria-label={say.plan.whatIf}>
      <h2 className="border-base-content mb-3 border-b-2 pb-1">{say.plan.whatIf}</h2>
      <select
        className="select mb-3 w-full max-w-md"
        aria-label={say.plan.movementToTry}
        value={chosen.key}
        onChange={(event) => choose(event.target.value)}
      >
        {lanes.map((one) => (
          <option key={one.key} value={one.key}>
            {world.context.find(one.lane.movementId)?.name}
            {plan.clientIds.length > 1 ? `, ${name(one.lane.clientId)}` : ''}
          </option>
        ))}
      </select>
      <Trial key={chosen.key} chosen={chosen} plan={plan} world={world} />
    </section>
  );
}

function Trial({
  chosen: { lane },
  plan,
  world,
}: {
  chosen: { lane: Plan['blocks'][number]['items'][number]['lanes'][number] };
  plan: Plan;
  world: World;
}) {
  const [amount, setAmount] = useState(lane.amount);
  const [effort, setEffort] = useState<Effort>('medium');
  const movement = world.context.find(lane.movementId);
  const loads = atHand(loadsFor(movement?.kit ?? [], world.place.kit), lane.load?.item ?? null);
  const [at, setAt] = useState(
    loads.findIndex(({ label: one, kg }) => one === lane.load?.label && kg === lane.load.kg),
  );
  const bodyKg = useQuery(clientQuery(lane.clientId)).data?.bodyKg;
  const standing = world.suggestClients.find(({ id }) => id === lane.clientId)?.standing;
  if (!movement || !standing) return null;
  const load = loads[at] ?? null;
  const left = REPS_LEFT[effort];
  const next = nextStep({
    standing,
    movement,
    purpose: plan.purpose,
    kit: world.place.kit,
    ladder: world.context.ladder,
    find: world.context.find,
    sets: world.records.get(lane.clientId)?.sets ?? {},
    work: { amount, effort, left: null, kg: load?.kg ?? null, label: load?.label ?? null, pieces: null, parts: null },
    faults: [],
    within: true,
  });
  const reps = movement.dose.mode === 'reps';
  const strength = reps && load?.kg ? estimate(load.kg, amount + left) : null;
  const hands = bodyKg ? bodyLoad(movement.id, bodyKg) : null;
  const others = reps && load?.kg ? sameEffort({ kg: load.kg, reps: amount, left }, loads) : [];
  return (
    <div className="grid gap-6 md:grid-cols-[auto_1fr]">
      <div className="flex flex-wrap gap-3 md:w-56 md:flex-col">
        <NumberField
          title={reps ? say.plan.repsDone : movement.dose.mode === 'time' ? say.plan.secondsDone : say.plan.metresDone}
          value={amount}
          low={0}
          high={3600}
          onChange={setAmount}
        />
        <label>
          <span className="quiet block text-sm">{say.common.felt}</span>
          <select className="select w-36" value={effort} onChange={(event) => setEffort(event.target.value as Effort)}>
            {EFFORTS.map((one) => (
              <option key={one} value={one}>
                {label(one)}
              </option>
            ))}
          </select>
        </label>
        {loads.length > 0 && (
          <label>
            <span className="quiet block text-sm">{say.plan.withWhat}</span>
            <select className="select w-44" value={at} onChange={(event) => setAt(Number(event.target.value))}>
              <option value={-1}>{say.common.noWeight}</option>
              {loads.map((one, i) => (
                <option key={`${one.label} ${one.kg}`} value={i}>
                  {one.label}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      <div>
        <p role="status" className="text-xl font-bold">
          {say.plan.next(
            next.dose.load?.label ?? say.common.noWeight,
            next.dose.amount,
            UNIT_WORDS[movement.dose.mode],
          )}
        </p>
        <p>{whyWords(next.why, namesIn(world).movement)}</p>
        {hands !== null && (
          <p className="quiet mt-2">
            {say.plan.aboutOfBodyWeightIs(
              weightWords(hands, world.clients.find(({ id }) => id === lane.clientId)?.unit === 'lb' ? 'lb' : null),
            )}
          </p>
        )}
        {strength && (
          <p className="quiet mt-2">
            {say.plan.mostForOneRepKg(
              strength.low.toFixed(1),
              strength.high.toFixed(1),
              strength.by.map(({ name, kg }) => `${name} ${kg.toFixed(1)}`).join(', '),
              strength.rough,
              ROUGH_REPS,
            )}
          </p>
        )}
        {others.length > 1 && (
          <table className="table-sm mt-3 table w-auto">
            <caption className="quiet text-left">{say.plan.theSameEffortWithOther}</caption>
            <tbody>
              {others.map(({ load: other, dose }) => (
                <tr key={`${other.label} ${other.kg}`} className={other === load ? 'font-bold' : ''}>
                  <th scope="row" className="text-left font-normal">
                    {other.label}
                  </th>
                  <td className="text-right">{say.plan.reps(dose.aim)}</td>
                  <td className="quiet">
                    {dose.reps.low === dose.reps.high ? '' : `${dose.reps.low}–${dose.reps.high}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </div>
  );
}
