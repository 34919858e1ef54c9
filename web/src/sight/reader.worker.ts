/** Reads a series of landmarks, off the page's own thread. */
import { type FigureLibrary, type Motion, motionOf } from '@waxwing/core/body';
import { type FaultKind, figureIdOf, type Movement } from '@waxwing/core/movement';
import { type Reading, readSeries, type Series } from '@waxwing/core/sight';
import { expose } from 'comlink';

export type Told = NonNullable<Parameters<typeof readSeries>[3]>;

let figures: FigureLibrary | undefined;
let kinds: readonly FaultKind[] = [];

/** By movement, so that a live set is not compared with a figure that is made anew each time. */
const motions = new Map<string, Motion | null>();

const reader = {
  /** What everything is compared with. */
  know(library: FigureLibrary, all: readonly FaultKind[]): void {
    [figures, kinds] = [library, all];
  },
  /** Null where no body is seen, or the movement has no figure to compare with. @param tempo as prescribed */
  read(series: Series, movement: Movement, tempo: string, told: Told): Reading | null {
    const library = figures;
    const figure = library?.figures[figureIdOf(movement)];
    if (!library || !figure) return null;
    const motionWith = (faultId?: string): Motion => {
      const key = [figureIdOf(movement), movement.dose.tempo, movement.sides, faultId].join(' ');
      const motion = motions.get(key) ?? motionOf(library, figure, movement, faultId ? { [faultId]: 1 } : {});
      motions.set(key, motion);
      return motion;
    };
    const own = (kind: string) => movement.faults.filter((fault) => fault.kind === kind);
    const shown = {
      motion: motionWith(),
      position: movement.position,
      tempo,
      usualTempo: movement.dose.tempo,
      faulty: (kind: string) => {
        const drawn = own(kind).find(({ id }) => figure.faults[id]);
        return drawn ? motionWith(drawn.id) : null;
      },
    };
    return readSeries(
      series,
      shown,
      kinds.filter(({ id, measure }) => measure && own(id).length > 0),
      told,
    );
  },
};

export type Reader = typeof reader;

expose(reader);
