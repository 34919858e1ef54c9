/** The figures of the library, read and checked at start, and written out once: they do not change while the server runs. */
import { Inject, Injectable } from '@nestjs/common';
import { askedOf, type FigureLibrary, type Proven } from '@waxwing/core/body';
import { figureIdOf, type Movement } from '@waxwing/core/movement';
import { loadCheckedFigures, loadProven, type Stills, stillsIn } from '@waxwing/library';

import { CONFIG, type Config } from '../config.js';

@Injectable()
export class FiguresService {
  /** A `FigureLibrary` as JSON text. */
  readonly text: string;
  readonly stills: Stills;
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

  /** What can be seen of each demand in a movement's figure. */
  shown = (movement: Pick<Movement, 'id' | 'drawnAs'>): Proven => {
    const id = figureIdOf(movement);
    const figure = this.figures[id];
    this.proven ??= loadProven(this.config.figures, this.config.figuresProven);
    return figure ? askedOf(this.proven[id] ?? {}, figure) : {};
  };
}
