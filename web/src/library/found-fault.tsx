/** The picture of a fault that a search found, in one of its movements: standing ones tell most. */
import { useQuery } from '@tanstack/react-query';
import { figureIdOf, type MovementSummary } from '@waxwing/core/movement';

import { figuresQuery, movementQuery } from '../api/queries';
import { FaultDrawing } from '../figures/fault-drawing';

interface Seen {
  movement: MovementSummary;
  faultId: string;
}

export default function FoundFaultPicture({ seen, className }: { seen: readonly Seen[]; className: string }) {
  const library = useQuery(figuresQuery).data;
  const drawn = seen.filter(({ movement, faultId }) => library?.figures[figureIdOf(movement)]?.faults[faultId]);
  const shown = drawn.find(({ movement }) => movement.position === 'standing') ?? drawn[0];
  const page = useQuery({ ...movementQuery(shown?.movement.id ?? ''), enabled: shown !== undefined }).data;
  const fault = page?.movement.faults.find(({ id }) => id === shown?.faultId);
  if (!library || !page || !fault) return null;
  return <FaultDrawing library={library} movement={page.movement} fault={fault} title="" className={className} />;
}
