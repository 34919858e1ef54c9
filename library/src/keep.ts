/** A step of the build: checks the starter library and its figures and keeps the checked form, and what the figures prove, so that a start need not do it again. */
import { checkFigureFiles, proveFigureFiles } from './figures.js';
import { checkFiles, keep, LibraryError } from './load.js';
import { FIGURES, FIGURES_CHECKED, PROVEN_CHECKED, STARTER_CHECKED, STARTER_FOLDER } from './places.js';

try {
  keep(STARTER_FOLDER, STARTER_CHECKED, checkFiles);
  keep(FIGURES, FIGURES_CHECKED, checkFigureFiles);
  keep(FIGURES, PROVEN_CHECKED, proveFigureFiles);
} catch (error) {
  if (!(error instanceof LibraryError)) throw error;
  console.error(error.message);
  process.exitCode = 1;
}
