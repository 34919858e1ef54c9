/** The error of one field, from the form's own checks or from the server's answer. */
import {
  type FieldError as RhfError,
  type FieldValues,
  get,
  type Path,
  useFormContext,
  type UseFormReturn,
} from 'react-hook-form';

import { ProblemError } from '../api/http';
import { say } from '../words/say';

export function FieldError({ path }: { path: string }) {
  const { formState } = useFormContext();
  const error = get(formState.errors, path) as RhfError | undefined;
  if (!error) return null;
  return (
    <span role="alert" className="text-error block text-sm">
      {error.message || say.people.isMissing}
    </span>
  );
}

/** Puts the server's field errors beside their fields, and returns what belongs to no field. */
export function showProblems<T extends FieldValues>(form: UseFormReturn<T>, error: unknown): string | null {
  if (!(error instanceof ProblemError)) return String(error);
  for (const { path, message } of error.errors)
    form.setError(path.replaceAll(/\[(\d+)\]/g, '.$1') as Path<T>, { type: 'server', message });
  return error.status === 422 ? null : error.message;
}
