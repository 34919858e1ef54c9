/** The figures of the library, read and checked at start, and written out once: they do not change while the server runs. */
import { Inject, Injectable } from '@nestjs/common';
import { askedOf, type FigureLibrary, type Proven } from '@waxwing/core/body';
import { figureIdOf, type Movement } from '@waxwing/core/movement';
import { loadCheckedFigures, loadProven, type Stills, stillsIn } from '@waxwing/library';

import { CONFIG, type Config } from '../config.js';

/** Points of a small picture's longer side: three for each of the 56 that a list gives it, so that it is sharp on any screen. */
const SMALL = 168;

@Injectable()
export class FiguresService {
  /** A `FigureLibrary` as JSON text. */
  readonly text: string;
  readonly stills: Stills;
  private readonly small = new Map<string, Promise<Buffer>>();
  private readonly figures: FigureLibrary['figures'];
  /** Read when first asked for: a start should not wait for it. */
  private proven: Readonly<Record<string, Proven>> | undefined;

  /** @throws LibraryError naming file and path */
  constructor(@Inject(CONFIG) private readonly config: Config) {
    const library = loadCheckedFigures(config.figures, config.figuresChecked);
    this.text = JSON.stringify(library);
    this.figures = library.figures;
    this.stills = stillsIn(config.stills);
  }

  /** The telling posture in little, drawn when it is first asked for: a list of many curves is slow to scroll. Undefined where there is none. */
  smallStill(movementId: string): Promise<Buffer> | undefined {
    const svg = this.stills.of(movementId);
    if (svg === undefined) return undefined;
    const drawn = this.small.get(movementId) ?? drawnSmall(svg);
    this.small.set(movementId, drawn);
    return drawn;
  }

  /** What can be seen of each demand in a movement's figure. */
  shown = (movement: Pick<Movement, 'id' | 'drawnAs'>): Proven => {
    const id = figureIdOf(movement);
    const figure = this.figures[id];
    this.proven ??= loadProven(this.config.figures, this.config.figuresProven);
    return figure ? askedOf(this.proven[id] ?? {}, figure) : {};
  };
}

async function drawnSmall(svg: string): Promise<Buffer> {
  const { default: sharp } = await import('sharp');
  return sharp(Buffer.from(svg)).resize(SMALL, SMALL, { fit: 'inside' }).webp().toBuffer();
}
