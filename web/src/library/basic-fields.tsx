/** What a movement is called and what kind of movement it is. */
import { MUSCLES, PATTERNS, PHASES, PLANES, POSITIONS, ROLES, SIDES, SPACES } from '@waxwing/core/movement';
import { useFormContext } from 'react-hook-form';
import { FieldError } from '../people/field-error';
import { Chips, Choice, Field, FormSection } from './form-parts';
import type { Fields } from './movement-fields';

export function BasicFields({ isNew }: { isNew: boolean }) {
  const { register } = useFormContext<Fields>();
  return (
    <FormSection title="The movement" id="name">
      <div className="grid gap-3 sm:grid-cols-2">
        <Field title="Name" path="name">
          {(id) => (
            <>
              <input id={id} className="input w-full" {...register('name')} />
              {isNew && <FieldError path="id" />}
            </>
          )}
        </Field>
        <Field title="Also called (commas between)" path="aliases">
          {(id) => <input id={id} className="input w-full" {...register('aliases')} />}
        </Field>
        <Field title="Families (commas between)" path="families">
          {(id) => <input id={id} className="input w-full" {...register('families')} />}
        </Field>
        <Field title="Breath" path="breath">
          {(id) => <input id={id} className="input w-full" {...register('breath')} />}
        </Field>
      </div>
      <div className="mt-3 grid grid-cols-2 gap-3 md:grid-cols-5">
        <Choice title="Pattern" name="pattern" values={PATTERNS} />
        <Choice title="Role" name="role" values={ROLES} />
        <Choice title="Position" name="position" values={POSITIONS} />
        <Choice title="Sides" name="sides" values={SIDES} />
        <Choice title="Room" name="space" values={SPACES} />
      </div>
      <div className="mt-3 grid gap-3 md:grid-cols-2">
        <Chips title="Works" name="prime" path="muscles.prime" values={MUSCLES} />
        <Chips title="Helped by" name="assist" path="muscles.assist" values={MUSCLES} />
        <Chips title="Phases, in order" name="phases" path="phases" values={PHASES} />
        <Chips title="Planes" name="planes" path="planes" values={PLANES} />
      </div>
    </FormSection>
  );
}
