/** The schema library as the whole of core uses it, set up before the first schema is made. The one file with a side effect: `package.json` names it. */
import { z } from 'zod';

// The page's content policy forbids code made from text, which is how checks would otherwise be sped up.
z.config({ jitless: true });

export { z };
