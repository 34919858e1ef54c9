/** Puts a weight that was typed on the floor into the kit of the place where it is. */
import type { QueryClient } from '@tanstack/react-query';
import type { Place } from '@waxwing/core/client';
import type { KitPiece } from '@waxwing/core/movement';

import { call } from '../api/http';
import { clientOnDayQuery, clientQuery, keepClient, studioQuery } from '../api/queries';
import { today } from '../words/dates';

/** What was listed without a weight is now known; anything else stays beside it. */
function withPiece(kit: readonly KitPiece[], piece: KitPiece): KitPiece[] {
  const unweighed = kit.findIndex(({ item, kg, plates }) => item === piece.item && !kg && !plates?.length);
  return unweighed < 0 ? [...kit, piece] : kit.toSpliced(unweighed, 1, { ...piece, count: kit[unweighed]?.count ?? 1 });
}

/** @throws when the server is not there or somebody else is changing the same */
export async function keepWeight(queries: QueryClient, { ref }: Place, piece: KitPiece): Promise<void> {
  if (ref.kind === 'home') {
    const client = await call('GET /clients/{id}', { id: ref.id });
    const change = { version: client.version, kit: withPiece(client.kit, piece) };
    keepClient(queries, await call('PATCH /clients/{id}', { id: ref.id, body: change }));
    void queries.invalidateQueries({ queryKey: clientOnDayQuery(ref.id, today()).queryKey });
    void queries.invalidateQueries({ queryKey: clientQuery(ref.id).queryKey });
    return;
  }
  const { version, name, trainer, kit, places } = await call('GET /studio');
  const change =
    ref.kind === 'studio'
      ? { kit: withPiece(kit, piece) }
      : { kit, places: places.map((one) => (one.id === ref.id ? { ...one, kit: withPiece(one.kit, piece) } : one)) };
  const saved = await call('PATCH /studio', { body: { version, name, trainer, ...change } });
  queries.setQueryData(studioQuery.queryKey, saved);
}
