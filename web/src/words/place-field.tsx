/** Choosing where a session is held. */
import { type Place, placeKey, type PlaceRef } from '@waxwing/core/client';

import { Choice } from './choice';
import { say } from './say';

/** Where it is held: the kit of that place decides. */
export function PlaceField({
  places,
  value,
  onChange,
}: {
  places: readonly Place[];
  value: PlaceRef;
  onChange: (place: Place) => void;
}) {
  const keys = places.map(({ ref }) => placeKey(ref));
  const key = placeKey(value);
  return (
    <Choice
      title={say.shell.where}
      all={keys.includes(key) ? keys : [key, ...keys]}
      words={(one) => places.find(({ ref }) => placeKey(ref) === one)?.name ?? say.shell.aPlaceThatIsGone}
      value={key}
      onChange={(chosen) => {
        const place = places.find(({ ref }) => placeKey(ref) === chosen);
        if (place) onChange(place);
      }}
    />
  );
}
