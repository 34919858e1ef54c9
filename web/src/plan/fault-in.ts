/** Faults by movement and name, as plain data: a worker can have it. */
import type { Fault } from '@waxwing/core/movement';
import type { LaneRequest } from '@waxwing/core/planning';

export type FaultNames = Readonly<Record<string, readonly Pick<Fault, 'id' | 'name' | 'severity'>[]>>;

export const faultIn =
  (names: FaultNames): NonNullable<LaneRequest['faultOf']> =>
  (movementId, faultId) =>
    names[movementId]?.find(({ id }) => id === faultId);
