/** `npm run dev`: everything rebuilt as it is edited; the page at port 4311, the API at 4310. */
import { ensureInstalled, must } from './prepare.mjs';

ensureInstalled();
must('npx', ['tsc', '-b']);
must('npx', [
  'concurrently',
  '-k',
  '-n',
  'build,server,web',
  'tsc -b --watch --preserveWatchOutput',
  'node --watch server/dist/main.js',
  'npm run dev -w web',
]);
