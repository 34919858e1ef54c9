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
    return [{ path: fieldPath(issue.path), message: plainly(issue) }];
  });
}

const TYPE_WORDS: Readonly<Record<string, string>> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
  null: 'empty',
};

/** The schema library's own words, where a schema gave none, as people say it. */
function plainly(issue: z.core.$ZodIssue): string {
  if (!/^(Too (small|big)|Invalid|Unrecognized)/.test(issue.message)) return issue.message;
  switch (issue.code) {
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `must have at least ${String(issue.minimum)}${issue.origin === 'string' ? ' characters' : ''}`
        : `must be ${String(issue.minimum)} or more`;
    case 'too_big':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `must have at most ${String(issue.maximum)}${issue.origin === 'string' ? ' characters' : ''}`
        : `must be at most ${String(issue.maximum)}`;
    case 'invalid_value':
      return `must be ${issue.values.length === 1 ? '' : 'one of '}${issue.values.map(String).join(', ')}`;
    case 'invalid_type':
      return `must be ${TYPE_WORDS[issue.expected] ?? issue.expected}`;
    default:
      return 'is not allowed here';
  }
}
