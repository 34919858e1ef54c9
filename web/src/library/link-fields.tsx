/** The links of a movement to its neighbours, each with the sign that says when to go up. */
import { DIRECTIONS, EFFORTS, LEVERS } from '@waxwing/core/movement';
import { useQuery } from '@tanstack/react-query';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { movementsQuery } from '../api/queries';
import { FieldError } from '../people/field-error';
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
              aria-label={`Direction of link ${i + 1}`}
              {...register(`links.${i}.direction`)}
            >
              <Options values={DIRECTIONS} />
            </select>
            <span>
              <select className="select w-full" aria-label={`Movement of link ${i + 1}`} {...register(`links.${i}.to`)}>
                {movements.map((movement) => (
                  <option key={movement.id} value={movement.id}>
                    {movement.name}
                  </option>
                ))}
              </select>
              <FieldError path={`links.${i}.to`} />
            </span>
            <select className="select w-full" aria-label={`Lever of link ${i + 1}`} {...register(`links.${i}.lever`)}>
              <Options values={LEVERS} />
            </select>
            <input
              type="number"
              min={0}
              className="input w-full"
              title="Ready at this many reps or seconds; 0 for no sign"
              aria-label={`Ready at, link ${i + 1}`}
              {...register(`links.${i}.readyAmount`, { valueAsNumber: true })}
            />
            <input
              type="number"
              min={1}
              className="input w-full"
              title="in this many sets"
              aria-label={`Ready sets, link ${i + 1}`}
              {...register(`links.${i}.readySets`, { valueAsNumber: true })}
            />
            <select
              className="select w-full"
              aria-label={`Ready effort, link ${i + 1}`}
              {...register(`links.${i}.readyEffort`)}
            >
              <Options values={EFFORTS} />
            </select>
            <input
              type="number"
              min={1}
              className="input w-full"
              title="in this many sessions running"
              aria-label={`Ready sessions, link ${i + 1}`}
              {...register(`links.${i}.readySessions`, { valueAsNumber: true })}
            />
            <RemoveButton what={`link ${i + 1}`} onClick={() => remove(i)} />
            <span className="col-span-2 sm:col-span-4 lg:col-span-8">
              <FieldError path={`links.${i}.readyWhen`} />
              <FieldError path={`links.${i}.readyWhen.reps`} />
            </span>
          </li>
        ))}
      </ul>
      <FieldError path="links" />
      <p className="quiet mt-1 text-sm">
        After the lever: ready at how many reps or seconds (0 for no sign), in how many sets, at most which effort, in
        how many sessions running.
      </p>
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
        Add a link
      </button>
    </>
  );
}
