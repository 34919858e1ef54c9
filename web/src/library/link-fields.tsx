/** The links of a movement to its neighbours, each with the sign that says when to go up. */
import { useQuery } from '@tanstack/react-query';
import { DIRECTIONS, EFFORTS, LEVERS } from '@waxwing/core/movement';
import { useFieldArray, useFormContext } from 'react-hook-form';

import { movementsQuery } from '../api/queries';
import { FieldError } from '../people/field-error';
import { say } from '../words/say';
import { Options, RemoveButton } from './form-parts';
import type { Fields } from './movement-fields';

export function LinkFields({ self }: { self: string }) {
  const { control, register } = useFormContext<Fields>();
  const { fields, append, remove } = useFieldArray({ control, name: 'links', keyName: 'key' });
  const movements = (useQuery(movementsQuery).data ?? []).filter(({ id }) => id !== self);
  return (
    <>
      <ul className="space-y-2">
        {fields.map((field, i) => (
          <li
            key={field.key}
            className="grid grid-cols-2 gap-2 sm:grid-cols-4 lg:grid-cols-[7rem_1fr_9rem_5rem_4rem_7rem_4rem_auto]"
          >
            <select
              className="select w-full"
              aria-label={say.library.directionOfLink(i + 1)}
              {...register(`links.${i}.direction`)}
            >
              <Options values={DIRECTIONS} />
            </select>
            <span>
              <select
                className="select w-full"
                aria-label={say.library.movementOfLink(i + 1)}
                {...register(`links.${i}.to`)}
              >
                {movements.map((movement) => (
                  <option key={movement.id} value={movement.id}>
                    {movement.name}
                  </option>
                ))}
              </select>
              <FieldError path={`links.${i}.to`} />
            </span>
            <select
              className="select w-full"
              aria-label={say.library.leverOfLink(i + 1)}
              {...register(`links.${i}.lever`)}
            >
              <Options values={LEVERS} />
            </select>
            <input
              type="number"
              min={0}
              className="input w-full"
              title={say.library.readyAtThisManyReps}
              aria-label={say.library.readyAtLink(i + 1)}
              {...register(`links.${i}.readyAmount`, { valueAsNumber: true })}
            />
            <input
              type="number"
              min={1}
              className="input w-full"
              title={say.library.inThisManySets}
              aria-label={say.library.readySetsLink(i + 1)}
              {...register(`links.${i}.readySets`, { valueAsNumber: true })}
            />
            <select
              className="select w-full"
              aria-label={say.library.readyEffortLink(i + 1)}
              {...register(`links.${i}.readyEffort`)}
            >
              <Options values={EFFORTS} />
            </select>
            <input
              type="number"
              min={1}
              className="input w-full"
              title={say.library.inThisManySessionsRunning}
              aria-label={say.library.readySessionsLink(i + 1)}
              {...register(`links.${i}.readySessions`, { valueAsNumber: true })}
            />
            <RemoveButton what={say.library.link(i + 1)} onClick={() => remove(i)} />
            <span className="col-span-2 sm:col-span-4 lg:col-span-8">
              <FieldError path={`links.${i}.readyWhen`} />
              <FieldError path={`links.${i}.readyWhen.reps`} />
            </span>
          </li>
        ))}
      </ul>
      <FieldError path="links" />
      <p className="quiet mt-1 text-sm">{say.library.afterTheLeverReadyAt}</p>
      <button
        type="button"
        className="btn mt-2"
        onClick={() =>
          append({
            to: movements[0]?.id ?? '',
            direction: 'harder',
            lever: 'load',
            readyAmount: 0,
            readySets: 2,
            readyEffort: 'medium',
            readySessions: 2,
            backWhen: undefined,
          })
        }
      >
        {say.library.addALink}
      </button>
    </>
  );
}
