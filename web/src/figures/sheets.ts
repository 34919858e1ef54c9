/** Pictures laid side by side on sheets that a graphics card can hold. */

export interface Area {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Sheet<Of> {
  cells: { of: Of; x: number; y: number }[];
  width: number;
  height: number;
}

/** A sheet is at most so wide and so high, in pixels; one picture may be larger. */
const MOST = 4096;
/** A row ends here, so that a sheet is as deep as it is wide. */
const ROW = 2048;

/** In the order given, row after row; y from above. */
export function sheetsOf<Of extends Pick<Area, 'width' | 'height'>>(all: readonly Of[]): Sheet<Of>[] {
  const sheets: Sheet<Of>[] = [];
  let [x, y, deepest] = [0, 0, 0];
  let sheet: Sheet<Of> | undefined;
  for (const of of all) {
    const { width, height } = of;
    if (x > 0 && x + width > ROW) [x, y, deepest] = [0, y + deepest, 0];
    if (!sheet || (y > 0 && y + height > MOST)) {
      [x, y, deepest] = [0, 0, 0];
      sheet = { cells: [], width: 0, height: 0 };
      sheets.push(sheet);
    }
    sheet.cells.push({ of, x, y });
    sheet.width = Math.max(sheet.width, x + width);
    sheet.height = Math.max(sheet.height, y + height);
    x += width;
    deepest = Math.max(deepest, height);
  }
  return sheets;
}
