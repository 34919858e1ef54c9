/** Choosing one movement by typing a part of its name. */
import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';

import { movementsQuery } from '../api/queries';

/** A text field with the library's names as suggestions; calls `onPick` once what is typed is a name, and empties itself. */
export function PickMovement({
  title,
  without = [],
  onPick,
}: {
  title: string;
  without?: readonly string[];
  onPick: (id: string) => void;
}) {
  const movements = useQuery(movementsQuery).data ?? [];
  const list = useId();
  const offered = movements.filter(({ id }) => !without.includes(id));
  return (
    <span className="inline-block">
      <input
        className="input w-64"
        list={list}
        aria-label={title}
        placeholder={title}
        onChange={(event) => {
          const picked = offered.find(({ name }) => name === event.target.value);
          if (!picked) return;
          event.target.value = '';
          onPick(picked.id);
        }}
      />
      <datalist id={list}>
        {offered.map(({ id, name }) => (
          <option key={id} value={name} />
        ))}
      </datalist>
    </span>
  );
}
