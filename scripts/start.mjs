/** `npm start`: Waxwing on the user's own data. */
import { ensureBuilt, ensureInstalled } from './prepare.mjs';
import { serve } from './serve.mjs';

ensureInstalled();
ensureBuilt();
// `npm start -- --accept-loss` goes on with a database that is not what it was.
serve(process.argv.slice(2));
