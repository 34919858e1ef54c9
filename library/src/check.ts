/** `npm run check` for content: prints the counts, or every problem by file and path, and fails. */
import { buildKindFinder } from '@waxwing/core/movement';

import { levelShortfalls } from './demand-levels.js';
import { figureShortfalls, loadFigures, loadProven, provenShortfalls } from './figures.js';
import {
  LibraryError,
  loadCauses,
  loadConditions,
  loadDemandLevels,
  loadExceptions,
  loadFaultKinds,
  loadLibrary,
  loadRules,
} from './load.js';
import {
  CAUSES,
  CONDITIONS,
  DEMAND_LEVELS,
  EXCEPTIONS,
  FAULT_KINDS,
  FIGURES,
  HOUSE_RULES,
  PROVEN_CHECKED,
  READINGS,
  STARTER_FOLDER,
} from './places.js';
import { loadReadings, toBeRead } from './readings.js';
import { shortfalls } from './standards.js';

function main(): number {
  try {
    const movements = loadLibrary(process.argv[2] ?? STARTER_FOLDER);
    const rules = loadRules(HOUSE_RULES);
    const kinds = loadFaultKinds(FAULT_KINDS);
    const causes = loadCauses(CAUSES);
    const conditions = loadConditions(CONDITIONS);
    const { of } = buildKindFinder(kinds);
    const exceptions = loadExceptions(EXCEPTIONS);
    const thin = shortfalls(movements, { rules, kinds, causes, exceptions });
    for (const { rule, movementId, path, message } of thin)
      console.error(`${movementId}: ${path} ${message} (${rule})`);
    const vague = levelShortfalls(loadDemandLevels(DEMAND_LEVELS), movements);
    for (const { file, path, message } of vague) console.error(`${file}: ${path} ${message}`);
    const drawn = loadFigures(FIGURES);
    const ill = [
      ...figureShortfalls(drawn, movements),
      ...provenShortfalls(drawn, loadProven(FIGURES, PROVEN_CHECKED), movements),
    ];
    for (const { file, path, message } of ill) console.error(`figure of ${file}: ${path} ${message}`);
    const sum = (count: (m: (typeof movements)[number]) => number) =>
      movements.reduce((total, m) => total + count(m), 0);
    const families = new Set(movements.flatMap((m) => m.families));
    console.log(
      `library: ${movements.length} movements in ${families.size} families, ${sum((m) => m.cues.length)} cues, ` +
        `${sum((m) => m.faults.length)} faults, ${sum((m) => m.faults.reduce((n, f) => n + f.corrections.length, 0))} corrections, ` +
        `${sum((m) => m.links.length)} links, ${rules.length} house rules, ${kinds.length} fault kinds of ${sum((m) => m.faults.filter(of).length)} faults, ${conditions.length} conditions, ${exceptions.length} exceptions, ${thin.length} shortfalls`,
    );
    const unread = toBeRead(movements, loadReadings(READINGS));
    if (unread.length > 0) console.log(`to be read again, for their words have changed: ${unread.join(', ')}`);
    const figures = Object.values(drawn.figures);
    console.log(
      `figures: ${figures.length} from ${Object.keys(drawn.poses).length} postures, ` +
        `${figures.reduce((n, { faults }) => n + Object.keys(faults).length, 0)} faults shown, ${ill.length} shortfalls`,
    );
    return thin.length + vague.length + ill.length === 0 ? 0 : 1;
  } catch (error) {
    if (!(error instanceof LibraryError)) throw error;
    console.error(error.message);
    return 1;
  }
}

process.exitCode = main();
