/** Checking a whole library: repeated ids, links and swaps that lead nowhere, ladders that run in a circle. */
import type { Movement } from '../movement/schema.js';
import type { Problem } from '../schema/problem.js';
import { buildLadder, CycleError } from './graph.js';

/** A problem of one movement within a library. */
export interface LibraryProblem extends Problem {
  movementId: string;
}

/** Checks what only shows across movements: repeated ids, links and swaps to movements that do not exist, cycles. */
export function checkReferences(movements: readonly Movement[]): LibraryProblem[] {
  const problems: LibraryProblem[] = [];
  const ids = new Set<string>();
  for (const movement of movements) {
    if (ids.has(movement.id))
      problems.push({ movementId: movement.id, path: 'id', message: `"${movement.id}" is used by two movements` });
    ids.add(movement.id);
  }
  for (const movement of movements) {
    movement.links.forEach((link, i) => {
      if (!ids.has(link.to))
        problems.push({
          movementId: movement.id,
          path: `links[${i}].to`,
          message: `no movement "${link.to}" in the library`,
        });
    });
    movement.precursors.forEach((id, i) => {
      if (!ids.has(id))
        problems.push({
          movementId: movement.id,
          path: `precursors[${i}]`,
          message: `no movement "${id}" in the library`,
        });
    });
    movement.faults.forEach((fault, i) =>
      fault.corrections.forEach((correction, j) => {
        if (correction.swapTo !== undefined && !ids.has(correction.swapTo))
          problems.push({
            movementId: movement.id,
            path: `faults[${i}].corrections[${j}].swapTo`,
            message: `no movement "${correction.swapTo}" in the library`,
          });
      }),
    );
  }
  if (problems.length > 0) return problems;
  try {
    buildLadder(movements);
  } catch (error) {
    if (!(error instanceof CycleError)) throw error;
    problems.push({ movementId: error.path[0] ?? '', path: 'links', message: error.message });
  }
  return problems;
}
