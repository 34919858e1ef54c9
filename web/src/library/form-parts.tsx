/** The small parts of the movement form: a labelled field, a choice from a closed list, and several choices at once. */
import { label } from '@waxwing/core/movement';
import { X } from 'lucide-react';
import { type ReactNode, useId } from 'react';
import { Controller, type FieldPath, useFormContext } from 'react-hook-form';

import { FieldError } from '../people/field-error';
import { say } from '../words/say';
import type { Fields } from './movement-fields';

/** A field under its name, with the error that belongs to `path` (a path of the movement, not of the form). */
export function Field({ title, path, children }: { title: string; path: string; children: (id: string) => ReactNode }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-bold">
        {title}
      </label>
      {children(id)}
      <FieldError path={path} />
    </div>
  );
}

export const Options = ({ values }: { values: readonly string[] }) => (
  <>
    {values.map((value) => (
      <option key={value} value={value}>
        {label(value)}
      </option>
    ))}
  </>
);

/** One value out of a closed list. */
export function Choice({ title, name, values }: { title: string; name: FieldPath<Fields>; values: readonly string[] }) {
  const { register } = useFormContext<Fields>();
  return (
    <Field title={title} path={name}>
      {(id) => (
        <select id={id} className="select w-full" {...register(name)}>
          <Options values={values} />
        </select>
      )}
    </Field>
  );
}

/** Several values out of a closed list, in the order in which they were chosen. */
export function Chips({
  title,
  name,
  path,
  values,
  words = label,
}: {
  title: string;
  name: FieldPath<Fields>;
  path: string;
  values: readonly string[];
  words?: (value: string) => string;
}) {
  const { control } = useFormContext<Fields>();
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => {
        const chosen = (field.value ?? []) as string[];
        return (
          <Field title={title} path={path}>
            {(id) => (
              <div className="flex flex-wrap items-center gap-1">
                {chosen.map((value) => (
                  <button
                    key={value}
                    type="button"
                    className="btn btn-sm"
                    aria-label={say.library.takeOut(words(value))}
                    onClick={() => field.onChange(chosen.filter((other) => other !== value))}
                  >
                    {words(value)} <X aria-hidden size={14} />
                  </button>
                ))}
                <select
                  id={id}
                  className="select select-sm w-auto"
                  value=""
                  onChange={(event) => field.onChange([...chosen, event.target.value])}
                >
                  <option value="">{say.library.add}</option>
                  {values
                    .filter((value) => !chosen.includes(value))
                    .map((value) => (
                      <option key={value} value={value}>
                        {words(value)}
                      </option>
                    ))}
                </select>
              </div>
            )}
          </Field>
        );
      }}
    />
  );
}

export const RemoveButton = ({ what, onClick }: { what: string; onClick: () => void }) => (
  <button type="button" className="btn btn-ghost btn-sm" aria-label={say.library.remove(what)} onClick={onClick}>
    <X aria-hidden size={16} />
  </button>
);

export function FormSection({ title, id, children }: { title: string; id: string; children: ReactNode }) {
  return (
    <section aria-labelledby={`form-${id}`} id={`part-${id}`} className="scroll-mt-20">
      <h2 id={`form-${id}`} className="border-base-content mb-3 border-b-2 pb-1">
        {title}
      </h2>
      {children}
    </section>
  );
}
