/** A sheet on paper: two columns, one page where it can, ink on white, a small figure beside each movement that has one. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

import { headOf, type Sheet, type SheetLine } from '@waxwing/core/formats';
import type { Column, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';

export type Paper = 'a4' | 'letter';

const MARGIN = 36;
const INK = '#1d1a18';
const QUIET = '#55504c';

/** Roboto, as it comes with the maker of PDFs. */
function fonts() {
  const folder = join(dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')), 'fonts/Roboto');
  const file = (name: string) => join(folder, `Roboto-${name}.ttf`);
  return {
    Roboto: {
      normal: file('Regular'),
      bold: file('Medium'),
      italics: file('Italic'),
      bolditalics: file('MediumItalic'),
    },
  };
}

export type StillsOf = (movementId: string) => readonly string[];

/** How wide a figure is drawn, in points. */
const FIGURE = 40;
const COLUMN_GAP = 22;

/** The stills of a movement one above the other; null where it has no figure. */
const figureOf = (stills: readonly string[]): Content | null =>
  stills.length === 0 ? null : { stack: stills.map((svg) => ({ svg, fit: [FIGURE, FIGURE] })) };

/** As many boxes as fit beside a name; who does more sets counts on. */
const MOST_BOXES = 6;

/** A box to tick for each set. */
const ticksFor = (sets: number): Column => ({
  canvas: Array.from({ length: Math.min(sets, MOST_BOXES) }, (_, i) => ({
    type: 'rect' as const,
    x: 13 * i,
    y: 0,
    w: 10,
    h: 10,
    lineWidth: 0.8,
    lineColor: INK,
  })),
  width: 13 * Math.min(sets, MOST_BOXES),
});

function lineContent(line: SheetLine, number: number, figure: Content | null): TableCell[] {
  const told = [
    ...(line.easier ? [`Easier: ${line.easier}`] : []),
    ...(line.harder ? [`Harder: ${line.harder}`] : []),
    ...(line.changed ? [`Since last time: ${line.changed}`] : []),
  ].join('  ·  ');
  const words: Content[] = [
    {
      columns: [
        { text: `${number}. ${line.name}`, bold: true, fontSize: 11, width: '*' },
        ...(line.sets > 0 ? [ticksFor(line.sets)] : []),
      ],
      columnGap: 6,
    },
    { text: line.leaveOut ?? [line.dose, line.kit ? `, ${line.kit}` : ''].join(''), margin: [0, 1, 0, 2] },
    ...(line.setUp ? [{ text: `Set-up: ${line.setUp}` }] : []),
    ...(line.how ? [{ text: line.how, margin: [0, 1, 0, 1] as [number, number, number, number] }] : []),
    ...line.reminders.map((reminder): Content => ({ text: `– ${reminder}`, color: QUIET })),
    ...(line.watchOut ? [{ text: [{ text: 'Watch out: ', bold: true }, line.watchOut] }] : []),
    ...(told
      ? [{ text: told, fontSize: 8.5, color: QUIET, margin: [0, 2, 0, 0] as [number, number, number, number] }]
      : []),
  ];
  return figure ? [figure, { stack: words }] : [{ stack: words, colSpan: 2 }, ''];
}

function linesOf(sheet: Sheet, stillsOf: StillsOf): Content[] {
  let number = 0;
  return [
    ...sheet.blocks.flatMap((block): Content[] => [
      {
        text: [block.title, block.note].filter(Boolean).join(' · '),
        fontSize: 12.5,
        bold: true,
        margin: [0, 6, 0, 2],
      },
      {
        layout: {
          hLineWidth: (row) => (row === 0 ? 1.2 : 0.5),
          vLineWidth: () => 0,
          hLineColor: (row) => (row === 0 ? INK : '#b5aea8'),
          paddingTop: () => 4,
          paddingBottom: () => 4,
          paddingLeft: () => 0,
          paddingRight: () => 8,
        },
        table: {
          widths: [FIGURE, '*'],
          dontBreakRows: true,
          body: block.lines.map((line) => lineContent(line, (number += 1), figureOf(stillsOf(line.movementId)))),
        },
      },
    ]),
    { text: 'Mind', fontSize: 12.5, bold: true, margin: [0, 8, 0, 2] },
    // A caution is not torn between two columns.
    {
      layout: 'noBorders',
      fontSize: 8.5,
      table: { dontBreakRows: true, body: sheet.cautions.map((caution) => [`– ${caution}`]) },
    },
  ];
}

export async function sheetPdf(sheet: Sheet, date: string | null, paper: Paper, stillsOf: StillsOf): Promise<Buffer> {
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.setFonts(fonts());
  // Nothing but the fonts is read, and nothing is fetched.
  pdfmake.setLocalAccessPolicy((path: string) => path.endsWith('.ttf'));
  pdfmake.setUrlAccessPolicy(() => false);
  const document: TDocumentDefinitions = {
    pageSize: paper === 'a4' ? 'A4' : 'LETTER',
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN + 10],
    info: { title: `${sheet.title}: ${sheet.client}`, author: sheet.trainer, producer: 'Waxwing' },
    defaultStyle: { font: 'Roboto', fontSize: 9.5, color: INK, lineHeight: 1.12 },
    footer: (page, pages) => ({
      text: `${sheet.client} · ${page} of ${pages}`,
      fontSize: 8,
      color: QUIET,
      alignment: 'right',
      margin: [MARGIN, 8, MARGIN, 0],
    }),
    content: [
      { text: sheet.title, fontSize: 19, bold: true },
      {
        text: headOf(sheet, date).join(' · '),
        color: QUIET,
        margin: [0, 2, 0, 6],
      },
      // The first column runs on in the second, and then on the next page.
      {
        columns: [
          { stack: linesOf(sheet, stillsOf), width: '*' },
          { text: '', width: '*' },
        ],
        columnGap: COLUMN_GAP,
        snakingColumns: true,
      },
    ],
  };
  return pdfmake.createPdf(document).getBuffer();
}
