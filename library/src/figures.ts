/** Reading figure files: postures first, then the figures that use them; every problem by file and path. */
import {
  askedOf,
  checkFigures,
  checkPoses,
  type FigureLibrary,
  type Proven,
  provenIn,
  saysLess,
} from '@waxwing/core/body';
import { demandWords, type Movement } from '@waxwing/core/movement';
import type { Problem } from '@waxwing/core/schema';

import { putTogether, type Written } from './figure-source.js';
import { type File, type FileProblem, LibraryError, loadKept, readFiles, readYaml } from './load.js';

const POSES = 'poses.yaml';
const SHARED_FAULTS = 'faults.yaml';

/** Reads and checks a folder of figures. @throws LibraryError naming file and path. */
export const loadFigures = (folder: string): FigureLibrary => checkFigureFiles(readFiles(folder));

/** Like `loadFigures`, but quick when the files are still those of the build. @throws LibraryError */
export const loadCheckedFigures = (folder: string, keptIn: string): FigureLibrary =>
  loadKept(folder, keptIn, checkFigureFiles);

/** What each figure proves, before its reasons are heard. @throws LibraryError */
export const proveFigureFiles = (files: readonly File[]): Readonly<Record<string, Proven>> =>
  provenIn(checkFigureFiles(files));

/** What each figure of a folder proves, quick when the files are still those of the build, else in some seconds. @throws LibraryError */
export const loadProven = (folder: string, keptIn: string): Readonly<Record<string, Proven>> =>
  loadKept(folder, keptIn, proveFigureFiles);

/** Figures from their files. @throws LibraryError naming files and paths. */
export function checkFigureFiles(files: readonly File[]): FigureLibrary {
  const named = (file: string, problems: readonly Problem[]): FileProblem[] =>
    problems.map((problem) => ({ file, ...problem }));
  const read = readYaml(files.find(({ name }) => name === POSES)?.text ?? '');
  if (!read.ok) throw new LibraryError(named(POSES, read.problems));
  const poses = checkPoses(read.value);
  if (!poses.ok) throw new LibraryError(named(POSES, poses.problems));
  const problems: FileProblem[] = [];
  const written = new Map<string, Written>();
  let shared: Readonly<Record<string, unknown>> = {};
  for (const { name, text } of files.filter((file) => file.name !== POSES)) {
    const parsed = readYaml(text);
    if (!parsed.ok) {
      problems.push(...named(name, parsed.problems));
      continue;
    }
    const entries = Object.entries((parsed.value ?? {}) as Record<string, unknown>);
    if (name === SHARED_FAULTS) shared = Object.fromEntries(entries);
    else
      for (const [id, fields] of entries) {
        if (written.has(id)) problems.push({ file: name, path: id, message: 'has a figure in another file already' });
        written.set(id, { file: name, fields });
      }
  }
  const together = putTogether(written, shared);
  problems.push(...together.problems);
  const figures: Record<string, FigureLibrary['figures'][string]> = {};
  const ill = new Map<string, FileProblem[]>();
  for (const [id, { file, fields }] of together.figures) {
    const checked = checkFigures({ [id]: fields }, poses.value);
    if (!checked.ok) ill.set(id, named(file, checked.problems));
    else Object.assign(figures, checked.value);
  }
  // What is wrong with a figure is said of it, and not of all that are like it.
  const takesOver = (id: string): boolean => {
    const like = together.figures.get(id)?.like;
    return like !== undefined && (ill.has(like) || takesOver(like));
  };
  for (const [id, wrong] of ill) if (!takesOver(id)) problems.push(...wrong);
  if (problems.length > 0) throw new LibraryError(problems);
  return { poses: poses.value, figures };
}

/** Movements without a figure; figures that belong to no movement, or show a fault that their movement does not have, or too few of those it has. */
export function figureShortfalls(library: FigureLibrary, movements: readonly Movement[]): FileProblem[] {
  const without = movements
    .filter(({ id }) => !(id in library.figures))
    .map(({ id }): FileProblem => ({ file: id, path: '', message: 'has no figure' }));
  const ill = Object.entries(library.figures).flatMap(([id, { faults }]): FileProblem[] => {
    const movement = movements.find((one) => one.id === id);
    const say = (path: string, message: string): FileProblem => ({ file: id, path, message });
    if (!movement) return [say('', 'is the figure of no movement')];
    const known = new Set(movement.faults.map((fault) => fault.id));
    const shown = Object.keys(faults);
    return [
      ...shown
        .filter((fault) => !known.has(fault))
        .map((fault) => say(`faults.${fault}`, 'is not a fault of the movement')),
      ...(shown.length < Math.min(LEAST_FAULTS, known.size) ? [say('faults', `shows fewer than ${LEAST_FAULTS}`)] : []),
    ];
  });
  return [...without, ...ill];
}

const LEAST_FAULTS = 2;

/** Movements that say less of a demand than their figure shows, and reasons for what is not so. */
export function provenShortfalls(
  library: FigureLibrary,
  proven: Readonly<Record<string, Proven>>,
  movements: readonly Movement[],
): FileProblem[] {
  return movements.flatMap(({ id, demands }): FileProblem[] => {
    const figure = library.figures[id];
    const seen = proven[id];
    if (!figure || !seen) return [];
    const less = saysLess(demands, seen);
    const idle = Object.keys(figure.notAsked ?? {}).filter((demand) => !less.some((one) => one.demand === demand));
    return [
      ...saysLess(demands, askedOf(seen, figure)).map(({ demand, said, seen: shown }) => ({
        file: id,
        path: `demands.${demand}`,
        message: `is ${said}, but its figure shows ${shown} of ${demandWords(demand)}: say as much, or say in the figure why not (notAsked)`,
      })),
      ...idle.map((demand) => ({ file: id, path: `notAsked.${demand}`, message: 'needs no reason' })),
    ];
  });
}
