/** `npm run read -w library -- <day> <id> …`: notes that these movements were read as they are. `new` stands for all never read before. */
import { loadLibrary } from './load.js';
import { READINGS, STARTER_FOLDER } from './places.js';
import { loadReadings, noteReadings } from './readings.js';

const [on = '', ...ids] = process.argv.slice(2);
const movements = loadLibrary(STARTER_FOLDER);
const known = new Set(movements.map(({ id }) => id));
const named = ids.includes('new')
  ? movements.filter(({ id }) => loadReadings(READINGS)[id] === undefined).map(({ id }) => id)
  : ids;
const strange = named.filter((id) => !known.has(id));
if (!/^\d{4}-\d{2}-\d{2}$/.test(on) || named.length === 0 || strange.length > 0) {
  console.error(
    strange.length > 0 ? `No movement ${strange.join(', ')}.` : 'Say the day (YYYY-MM-DD) and the movements.',
  );
  process.exitCode = 1;
} else {
  noteReadings(READINGS, movements, named, on);
  console.log(`${named.length} noted as read on ${on}.`);
}
