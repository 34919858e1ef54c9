/** A sheet on paper: one or two pages, ink on white, a small figure beside each movement that has one. */
import { headOf, type Sheet, type SheetLine } from '@waxwing/core/formats';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';

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

/** The stills of a movement beside each other; null where it has no figure. */
const figureOf = (stills: readonly string[]): Content | null =>
  stills.length === 0 ? null : { columns: stills.map((svg) => ({ svg, fit: [50, 56] })), columnGap: 4 };

function lineContent(line: SheetLine, number: number, figure: Content | null): TableCell[] {
  const told = [
    ...(line.easier ? [`Easier: ${line.easier}`] : []),
    ...(line.harder ? [`Harder: ${line.harder}`] : []),
    ...(line.changed ? [`Since last time: ${line.changed}`] : []),
  ].join('  ·  ');
  const words: Content[] = [
    { text: `${number}. ${line.name}`, bold: true, fontSize: 11.5 },
    { text: line.leaveOut ?? [line.dose, line.kit ? `, ${line.kit}` : ''].join(''), margin: [0, 1, 0, 2] },
    ...(line.setUp ? [{ text: `Set-up: ${line.setUp}` }] : []),
    ...(line.how ? [{ text: line.how, margin: [0, 1, 0, 1] as [number, number, number, number] }] : []),
    ...line.reminders.map((reminder): Content => ({ text: `– ${reminder}`, color: QUIET })),
    ...(line.watchOut ? [{ text: [{ text: 'Watch out: ', bold: true }, line.watchOut] }] : []),
    ...(told
      ? [{ text: told, fontSize: 8.5, color: QUIET, margin: [0, 2, 0, 0] as [number, number, number, number] }]
      : []),
  ];
  // A box to tick for each set.
  const boxes = Array.from({ length: Math.min(line.sets, 8) }, (_, i) => ({
    type: 'rect' as const,
    x: 14 * (i % 4),
    y: 14 * Math.floor(i / 4),
    w: 10,
    h: 10,
    lineWidth: 0.8,
    lineColor: INK,
  }));
  const ticks: Content = { canvas: boxes };
  return figure ? [figure, { stack: words }, ticks] : [{ stack: words, colSpan: 2 }, '', ticks];
}

export async function sheetPdf(sheet: Sheet, date: string | null, paper: Paper, stillsOf: StillsOf): Promise<Buffer> {
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.setFonts(fonts());
  // Nothing but the fonts is read, and nothing is fetched.
  pdfmake.setLocalAccessPolicy((path: string) => path.endsWith('.ttf'));
  pdfmake.setUrlAccessPolicy(() => false);
  let number = 0;
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
            widths: [104, '*', 60],
            dontBreakRows: true,
            body: block.lines.map((line) => lineContent(line, (number += 1), figureOf(stillsOf(line.movementId)))),
          },
        },
      ]),
      { text: 'Mind', fontSize: 12.5, bold: true, margin: [0, 8, 0, 2] },
      { ul: sheet.cautions, fontSize: 8.5 },
    ],
  };
  return pdfmake.createPdf(document).getBuffer();
}
