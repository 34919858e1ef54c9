/** `npm start`: Waxwing on the user's own data. */
import { ensureBuilt, ensureInstalled } from './prepare.mjs';
import { serve } from './serve.mjs';

ensureInstalled();
ensureBuilt();
serve([]);
