/** Rows for what a place has: item, how many, and the weight of weighed things. Shared by client and studio forms. */
import { KIT_ITEMS, label, type KitPiece } from '@waxwing/core/movement';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { FieldError } from './field-error';

/** A kit row as the form holds it: an empty weight is not a number. */
export interface KitRow {
  item: KitPiece['item'];
  count: number;
  kg: number;
  label: string;
}

export const toRows = (kit: readonly KitPiece[]): KitRow[] =>
  kit.map(({ item, count, kg, label: name }) => ({ item, count, kg: kg ?? NaN, label: name ?? '' }));

export const fromRows = (rows: readonly KitRow[]): KitPiece[] =>
  rows.map(({ item, count, kg, label: name }) => ({
    item,
    count,
    ...(Number.isNaN(kg) ? {} : { kg }),
    ...(name.trim() ? { label: name.trim() } : {}),
  }));

export function KitFields() {
  const { control, register } = useFormContext<{ kit: KitRow[] }>();
  const { fields, append, remove } = useFieldArray({ control, name: 'kit' });
  return (
    <fieldset className="space-y-2">
      <legend className="text-xl font-bold">Kit</legend>
      {fields.map((field, i) => (
        <div key={field.id} className="grid grid-cols-[1fr_5rem_6rem_1fr_auto] items-start gap-2">
          <select className="select w-full" aria-label={`Item ${i + 1}`} {...register(`kit.${i}.item`)}>
            {KIT_ITEMS.map((item) => (
              <option key={item} value={item}>
                {label(item)}
              </option>
            ))}
          </select>
          <span>
            <input
              className="input w-full"
              type="number"
              min={1}
              aria-label={`How many of item ${i + 1}`}
              {...register(`kit.${i}.count`, { valueAsNumber: true })}
            />
            <FieldError path={`kit.${i}.count`} />
          </span>
          <span>
            <input
              className="input w-full"
              type="number"
              step="any"
              placeholder="kg"
              aria-label={`Kilograms of item ${i + 1}`}
              {...register(`kit.${i}.kg`, { valueAsNumber: true })}
            />
            <FieldError path={`kit.${i}.kg`} />
          </span>
          <input
            className="input w-full"
            placeholder="label, such as 25 lb"
            aria-label={`Label of item ${i + 1}`}
            {...register(`kit.${i}.label`)}
          />
          <button type="button" className="btn btn-ghost" onClick={() => remove(i)} aria-label={`Remove item ${i + 1}`}>
            Remove
          </button>
        </div>
      ))}
      <button type="button" className="btn" onClick={() => append({ item: 'dumbbell', count: 2, kg: NaN, label: '' })}>
        Add kit
      </button>
    </fieldset>
  );
}
