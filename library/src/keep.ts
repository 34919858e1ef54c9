/** A step of the build: checks the starter library and its figures and keeps the checked form, so that a start need not do it again. */
import { checkFigureFiles } from './figures.js';
import { checkFiles, keep, LibraryError } from './load.js';
import { FIGURES, FIGURES_CHECKED, STARTER_CHECKED, STARTER_FOLDER } from './places.js';

try {
  keep(STARTER_FOLDER, STARTER_CHECKED, checkFiles);
  keep(FIGURES, FIGURES_CHECKED, checkFigureFiles);
} catch (error) {
  if (!(error instanceof LibraryError)) throw error;
  console.error(error.message);
  process.exitCode = 1;
}
