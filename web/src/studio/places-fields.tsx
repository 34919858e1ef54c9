/** Where else sessions are held: each place with its room and its kit. */
import type { Space } from '@waxwing/core/movement';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { v7 as uuidv7 } from 'uuid';

import { FieldError } from '../people/field-error';
import { KitFields, type KitRow } from '../people/kit-fields';
import { SpaceField } from '../people/space-field';
import { say } from '../words/say';

export interface PlaceRow {
  /** The place's own id; `id` is the form's. */
  placeId: string;
  name: string;
  space: Space;
  kit: KitRow[];
}

export function PlacesFields() {
  const { control, register, watch } = useFormContext<{ places: PlaceRow[] }>();
  const { fields, append, remove } = useFieldArray({ control, name: 'places' });
  return (
    <fieldset className="space-y-4">
      <legend className="text-xl font-bold">{say.studio.otherPlaces}</legend>
      <p className="quiet">{say.studio.aParkAHotelSomebodys}</p>
      {fields.map((field, i) => (
        <div key={field.id} className="border-base-300 space-y-3 border-l-4 pl-4">
          <div className="grid items-end gap-3 sm:grid-cols-[2fr_1fr_auto]">
            <label>
              <span className="mb-1 block font-bold">{say.common.name}</span>
              <input
                className="input w-full"
                aria-label={say.studio.nameOfPlace(i + 1)}
                {...register(`places.${i}.name`, { required: say.common.mustNotBeEmpty })}
              />
            </label>
            <SpaceField name={`places.${i}.space`} title={say.common.room} of={say.studio.ofPlace(i + 1)} />
            <button type="button" className="btn btn-ghost" onClick={() => remove(i)}>
              {say.common.remove}
              <span className="sr-only">{say.studio.placeNamed(i + 1)}</span>
            </button>
          </div>
          <FieldError path={`places.${i}.name`} />
          <KitFields
            name={`places.${i}.kit`}
            title={say.studio.kitThere}
            of={watch(`places.${i}.name`) || say.studio.placeAt(i + 1)}
          />
        </div>
      ))}
      <button
        type="button"
        className="btn"
        onClick={() => append({ placeId: uuidv7(), name: '', space: 'lane', kit: [] })}
      >
        {say.studio.addAPlace}
      </button>
    </fieldset>
  );
}
