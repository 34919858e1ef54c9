/** One thing wrong with some input: where (a field path such as `faults[2].phase`) and what, in words for the person who typed it. */
import type { z } from 'zod';

export interface Problem {
  path: string;
  message: string;
}

/** `['faults', 2, 'phase']` → `faults[2].phase`. */
export function fieldPath(parts: readonly PropertyKey[]): string {
  return parts.reduce<string>(
    (path, part) => (typeof part === 'number' ? `${path}[${part}]` : path ? `${path}.${String(part)}` : String(part)),
    '',
  );
}

/** Schema issues as problems; an unknown key is reported at its own path. */
export function problemsOf(error: z.ZodError): Problem[] {
  return error.issues.flatMap((issue): Problem[] => {
    if (issue.code === 'unrecognized_keys')
      return issue.keys.map((key) => ({ path: fieldPath([...issue.path, key]), message: 'is not a known field' }));
    if (issue.code === 'invalid_type' && issue.input === undefined && issue.message.includes('undefined'))
      return [{ path: fieldPath(issue.path), message: 'is missing' }];
    return [{ path: fieldPath(issue.path), message: issue.message }];
  });
}
