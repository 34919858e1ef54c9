/** A code that is shown once. */
import { Printer } from 'lucide-react';

export function CodeShown({ code, onDone, done }: { code: string; onDone: () => void; done: string }) {
  return (
    <div className="space-y-4">
      <p className="bg-base-200 p-4 text-center text-2xl font-bold tracking-wide select-all">{code}</p>
      <p className="quiet">It is shown this once. Print it or write it down, and keep it where you keep keys.</p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn target" onClick={() => window.print()}>
          <Printer aria-hidden size={20} /> Print
        </button>
        <button type="button" className="btn btn-primary target" onClick={onDone}>
          {done}
        </button>
      </div>
    </div>
  );
}
