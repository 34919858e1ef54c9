/** `npm run check`: types, lint, format, boundaries and content. */
import { CHECKS } from './checks.mjs';
import { ensureInstalled, must } from './prepare.mjs';

ensureInstalled();
for (const { name, command, args } of CHECKS) {
  console.log(`— ${name}`);
  must(command, args);
}
