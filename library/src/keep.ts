/** A step of the build: checks the starter library and keeps the checked form, so that a start need not do it again. */
import { keepChecked, LibraryError } from './load.js';
import { STARTER_CHECKED, STARTER_FOLDER } from './places.js';

try {
  keepChecked(STARTER_FOLDER, STARTER_CHECKED);
} catch (error) {
  if (!(error instanceof LibraryError)) throw error;
  console.error(error.message);
  process.exitCode = 1;
}
