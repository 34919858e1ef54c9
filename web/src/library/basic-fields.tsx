/** What a movement is called and what kind of movement it is. */
import { MUSCLES, PATTERNS, PHASES, PLANES, POSITIONS, ROLES, SIDES, SPACES } from '@waxwing/core/movement';
import { useFormContext } from 'react-hook-form';

import { FieldError } from '../people/field-error';
import { say } from '../words/say';
import { Chips, Choice, Field, FormSection } from './form-parts';
import type { Fields } from './movement-fields';

export function BasicFields({ isNew }: { isNew: boolean }) {
  const { register } = useFormContext<Fields>();
  return (
    <FormSection title={say.library.theMovement} id="name">
      <div className="grid gap-3 sm:grid-cols-2">
        <Field title={say.common.name} path="name">
          {(id) => (
            <>
              <input id={id} className="input w-full" {...register('name')} />
              {isNew && <FieldError path="id" />}
            </>
          )}
        </Field>
        <Field title={say.library.alsoCalledCommasBetween} path="aliases">
          {(id) => <input id={id} className="input w-full" {...register('aliases')} />}
        </Field>
        <Field title={say.library.familiesCommasBetween} path="families">
          {(id) => <input id={id} className="input w-full" {...register('families')} />}
        </Field>
        <Field title={say.library.breath} path="breath">
          {(id) => <input id={id} className="input w-full" {...register('breath')} />}
        </Field>
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3 md:grid-cols-5">
        <Choice title={say.library.pattern} name="pattern" values={PATTERNS} />
        <Choice title={say.library.role} name="role" values={ROLES} />
        <Choice title={say.library.position} name="position" values={POSITIONS} />
        <Choice title={say.library.sides} name="sides" values={SIDES} />
        <Choice title={say.common.room} name="space" values={SPACES} />
      </div>
      <div className="mt-3 grid gap-3 md:grid-cols-2">
        <Chips title={say.library.works} name="prime" path="muscles.prime" values={MUSCLES} />
        <Chips title={say.library.helpedBy} name="assist" path="muscles.assist" values={MUSCLES} />
        <Chips title={say.library.phasesInOrder} name="phases" path="phases" values={PHASES} />
        <Chips title={say.library.planes} name="planes" path="planes" values={PLANES} />
      </div>
    </FormSection>
  );
}
