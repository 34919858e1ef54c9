/** The skins of the figure: fetched once a build, and put together once for each kind of hands and hair. */
import { queryOptions, useQuery } from '@tanstack/react-query';
import broad from '@waxwing/body/baked/broad.bin?url';
import narrow from '@waxwing/body/baked/narrow.bin?url';
import {
  assembled,
  coarsened,
  handsOf,
  type Motion,
  type Person,
  personFor,
  readSkin,
  type Skin,
} from '@waxwing/core/body';
import type { Looks } from '@waxwing/core/movement';
import { createContext, useContext, useMemo } from 'react';

import { studioQuery } from '../api/queries';

const FILES: Readonly<Record<Person['build'], string>> = { broad, narrow };

const skinQuery = (build: Person['build']) =>
  queryOptions({
    queryKey: ['skin', build],
    queryFn: async () => {
      const answer = await fetch(FILES[build]);
      if (!answer.ok) throw new Error(`the figure could not be fetched: ${answer.status}`);
      return { file: readSkin(await answer.arrayBuffer()), made: new Map<string, Pick<Cast, 'skin' | 'light'>>() };
    },
    staleTime: Infinity,
    gcTime: Infinity,
  });

export interface Cast {
  person: Person;
  skin: Skin;
  /** With fewer triangles, for where the processor draws every pixel. */
  light: Skin;
}

/** Who shows the movements to whoever looks: a client's own choice comes before the studio's. */
export const LooksFor = createContext<Looks | null>(null);

/** Who shows a motion; undefined until they are here. */
export function useCast(motion: Motion): Cast | undefined {
  const studio = useQuery(studioQuery).data?.looks ?? null;
  const looks = useContext(LooksFor) ?? studio;
  const person = useMemo(() => personFor(motion.name, looks), [motion.name, looks]);
  const { data } = useQuery(skinQuery(person.build));
  return useMemo(() => {
    if (!data) return undefined;
    const hands = handsOf(motion);
    const key = `${hands.left} ${hands.right} ${person.hair}`;
    let skins = data.made.get(key);
    if (!skins) {
      const skin = assembled(data.file, { hands, hair: person.hair });
      skins = { skin, light: coarsened(skin) };
      data.made.set(key, skins);
    }
    return { person, ...skins };
  }, [data, motion, person]);
}
