/** A fault as it looks, standing still: the moment at which it shows most, marked, from the side from which it is seen best. */
import { type FigureLibrary, keyTimes } from '@waxwing/core/body';
import { bestView } from '@waxwing/core/coaching';
import { type Fault, figureIdOf, type View } from '@waxwing/core/movement';
import { useMemo } from 'react';

import { FigureDrawing } from './figure';
import { motionIn, type Moved } from './use-motion';

/** Nothing where the fault is not drawn. */
export function FaultDrawing({
  library,
  movement,
  fault,
  title,
  view,
  className,
}: {
  library: FigureLibrary;
  movement: Moved;
  fault: Fault;
  title: string;
  view?: View | undefined;
  className: string;
}) {
  const detail = library.figures[figureIdOf(movement)]?.faults[fault.id];
  const faulty = useMemo(() => detail && motionIn(library, movement, fault.id), [detail, library, movement, fault.id]);
  if (!detail || !faulty) return null;
  const worst = detail.at === 'start' || faulty.figure.cycle ? 0 : (keyTimes(faulty).at(-1) ?? 0);
  return (
    <FigureDrawing
      motion={faulty}
      at={worst}
      view={view ?? bestView(fault)}
      title={title}
      mark={detail.mark}
      className={className}
    />
  );
}
