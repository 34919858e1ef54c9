/** The picture of a movement, small and still: beside its name, which says what it shows. Room is kept where there is none. */
import { useQuery } from '@tanstack/react-query';
import { stillsQuery } from '../api/queries';

export function Still({ movementId, className }: { movementId: string; className: string }) {
  const drawn = useQuery(stillsQuery).data?.has(movementId);
  return drawn ? (
    <img
      src={`/api/library/stills/${movementId}.svg`}
      alt=""
      loading="lazy"
      className={`object-contain ${className}`}
    />
  ) : (
    <span className={className} />
  );
}
