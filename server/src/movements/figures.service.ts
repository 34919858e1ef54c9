/** The figures of the library, read and checked at start, and written out once: they do not change while the server runs. */
import { Inject, Injectable } from '@nestjs/common';
import { loadCheckedFigures, type Stills, stillsIn } from '@waxwing/library';

import { CONFIG, type Config } from '../config.js';

/** Points of a small picture's longer side: three for each of the 56 that a list gives it, so that it is sharp on any screen. */
const SMALL = 168;

@Injectable()
export class FiguresService {
  /** A `FigureLibrary` as JSON text. */
  readonly text: string;
  readonly stills: Stills;
  private readonly small = new Map<string, Promise<Buffer>>();

  /** @throws LibraryError naming file and path */
  constructor(@Inject(CONFIG) config: Config) {
    this.text = JSON.stringify(loadCheckedFigures(config.figures, config.figuresChecked));
    this.stills = stillsIn(config.stills);
  }

  /** The telling posture in little, drawn when it is first asked for: a list of many curves is slow to scroll. Undefined where there is none. */
  smallStill(movementId: string): Promise<Buffer> | undefined {
    const svg = this.stills.of(movementId);
    if (svg === undefined) return undefined;
    const drawn = this.small.get(movementId) ?? drawnSmall(svg);
    this.small.set(movementId, drawn);
    // What failed is drawn again when it is next asked for.
    drawn.catch(() => this.small.delete(movementId));
    return drawn;
  }
}

async function drawnSmall(svg: string): Promise<Buffer> {
  const { default: sharp } = await import('sharp');
  return sharp(Buffer.from(svg)).resize(SMALL, SMALL, { fit: 'inside' }).webp().toBuffer();
}
