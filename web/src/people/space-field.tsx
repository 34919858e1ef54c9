/** The room that a place has, in a form. */
import { SPACE_WORDS, SPACES } from '@waxwing/core/movement';
import { useId } from 'react';
import { useFormContext } from 'react-hook-form';

/** @param of whose room it is, read aloud; nothing where the title says it */
export function SpaceField({ name, title, of }: { name: string; title: string; of?: string }) {
  const { register } = useFormContext();
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-bold">
        {title}
        {of && <span className="sr-only"> {of}</span>}
      </label>
      <select id={id} className="select w-full max-w-xs" {...register(name)}>
        {SPACES.map((space) => (
          <option key={space} value={space}>
            {SPACE_WORDS[space]}
          </option>
        ))}
      </select>
    </div>
  );
}
