/** The figures of the library, read and checked at start, and written out once: they do not change while the server runs. */
import { Inject, Injectable } from '@nestjs/common';
import { loadCheckedFigures, type Stills, stillsIn } from '@waxwing/library';

import { CONFIG, type Config } from '../config.js';

@Injectable()
export class FiguresService {
  /** A `FigureLibrary` as JSON text. */
  readonly text: string;
  readonly stills: Stills;

  /** @throws LibraryError naming file and path */
  constructor(@Inject(CONFIG) config: Config) {
    this.text = JSON.stringify(loadCheckedFigures(config.figures, config.figuresChecked));
    this.stills = stillsIn(config.stills);
  }
}
