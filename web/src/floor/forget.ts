/** What was deleted for good on the server goes from this device as well, as soon as it hears of it. */
import { dropPacks, packedIds } from './pack';
import { dropTaps, erasedOf, idsHere } from './tap-queue';

/** While the server is away nothing is known to be deleted, and nothing is taken away but what is old. */
export async function forgetErased(): Promise<void> {
  const ids = [...new Set([...(await idsHere()), ...(await packedIds())])];
  const erased = await erasedOf(ids).catch(() => new Set<string>());
  await dropTaps(erased);
  await dropPacks(erased);
}
