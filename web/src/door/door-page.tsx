/** The page before the studio: one thing to do, in the middle of it. */
import type { ReactNode } from 'react';

export const DoorPage = ({ title, children }: { title: string; children: ReactNode }) => (
  <main id="main" className="flex min-h-full flex-col items-center justify-center p-4">
    <div className="w-full max-w-md space-y-5">
      <p className="text-primary text-lg font-bold">Waxwing</p>
      <h1>{title}</h1>
      {children}
    </div>
  </main>
);

export function TextField({
  id,
  label,
  hint,
  ...input
}: { id: string; label: string; hint?: string } & React.InputHTMLAttributes<HTMLInputElement>) {
  return (
    <div>
      <label htmlFor={id} className="mb-1 block font-bold">
        {label}
      </label>
      <input
        id={id}
        className="input min-h-12 w-full text-lg"
        {...(hint ? { 'aria-describedby': `${id}-hint` } : {})}
        {...input}
      />
      {hint && (
        <p id={`${id}-hint`} className="quiet mt-1 text-sm">
          {hint}
        </p>
      )}
    </div>
  );
}
