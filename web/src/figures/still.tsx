/** The picture of a movement, small and still: beside its name, which says what it shows. Room is kept where there is none. */
import { useQuery } from '@tanstack/react-query';
import { figureIdOf, type Movement } from '@waxwing/core/movement';

import { stillsQuery } from '../api/queries';

type Drawn = Pick<Movement, 'id' | 'drawnAs'>;

export function Still({ movement, className }: { movement: Drawn; className: string }) {
  return <Shown movement={movement} file="/small.webp" className={className} />;
}

/** The same as large as is wanted, until the figure itself is here. */
export function LargeStill({ movement, className }: { movement: Drawn; className: string }) {
  return <Shown movement={movement} file=".svg" className={className} />;
}

function Shown({ movement, file, className }: { movement: Drawn; file: string; className: string }) {
  const id = figureIdOf(movement);
  const drawn = useQuery(stillsQuery).data?.drawn.has(id);
  return drawn ? <Picture file={`${id}${file}`} className={className} /> : <span className={className} />;
}

/** The start of a rep and its far end beside each other; of a hold the one posture. Nothing where there is no figure. */
export function StillPair({ movement, className }: { movement: Drawn; className: string }) {
  const id = figureIdOf(movement);
  const stills = useQuery(stillsQuery).data;
  if (!stills?.drawn.has(id)) return null;
  return (
    <span className="flex shrink-0 gap-1">
      {stills.started.has(id) && <Picture file={`${id}/start.svg`} className={className} />}
      <Picture file={`${id}.svg`} className={className} />
    </span>
  );
}

function Picture({ file, className }: { file: string; className: string }) {
  return <img src={`/api/library/stills/${file}`} alt="" loading="lazy" className={`object-contain ${className}`} />;
}
