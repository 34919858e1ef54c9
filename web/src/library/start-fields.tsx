/** How a movement is begun: what somebody alone is told, what is set up and remembered, what comes first, and what it should feel like. */
import { useQuery } from '@tanstack/react-query';
import { label, PROGRESSIONS, SET_UPS } from '@waxwing/core/movement';
import { useFormContext, useWatch } from 'react-hook-form';

import { movementsQuery, stillsQuery } from '../api/queries';
import { say } from '../words/say';
import { Chips, Choice, Field } from './form-parts';
import type { Fields } from './movement-fields';

export function StartFields({ self }: { self: string }) {
  const { register } = useFormContext<Fields>();
  const movements = (useQuery(movementsQuery).data ?? []).filter(({ id }) => id !== self);
  const drawn = useQuery(stillsQuery).data?.drawn;
  const offered = movements.filter(({ id }) => drawn?.has(id)).map(({ id }) => id);
  const drawnAs = useWatch<Fields, 'drawnAs'>({ name: 'drawnAs' });
  const nameOf = (id: string) => movements.find((movement) => movement.id === id)?.name ?? label(id);
  return (
    <div className="grid gap-3 md:grid-cols-2">
      <div className="md:col-span-2">
        <Field title={say.library.forSomebodyAloneStartMove} path="how">
          {(id) => <textarea id={id} rows={3} className="textarea w-full" {...register('how')} />}
        </Field>
      </div>
      <Field title={say.library.whatShouldBeFelt} path="feel.expected">
        {(id) => <input id={id} className="input w-full" {...register('expected')} />}
      </Field>
      <Field title={say.library.whatMeansStop} path="feel.stop">
        {(id) => <input id={id} className="input w-full" {...register('stop')} />}
      </Field>
      <Chips title={say.library.toFindAndRememberFor} name="setUp" path="setUp" values={SET_UPS} />
      <Chips
        title={say.library.toBeOwnedFirst}
        name="precursors"
        path="precursors"
        values={movements.map(({ id }) => id)}
        words={nameOf}
      />
      <Field title={say.library.drawnAs} path="drawnAs">
        {(id) => (
          <select id={id} className="select w-full" {...register('drawnAs')}>
            <option value="">{say.library.itsOwnFigureOrNone}</option>
            {/* What is chosen stands there before the others have come. */}
            {[...new Set([...(drawnAs ? [drawnAs] : []), ...offered])].map((one) => (
              <option key={one} value={one}>
                {nameOf(one)}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Choice title={say.library.somethingHarderIsMeantTo} name="progression" values={PROGRESSIONS} />
    </div>
  );
}
