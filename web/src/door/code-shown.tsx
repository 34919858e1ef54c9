/** A code that is shown once. */
import { Printer } from 'lucide-react';

import { say } from '../words/say';

export function CodeShown({ code, onDone, done }: { code: string; onDone: () => void; done: string }) {
  return (
    <div className="space-y-4">
      <p className="bg-base-200 p-4 text-center text-2xl font-bold tracking-wide select-all">{code}</p>
      <p className="quiet">{say.door.itIsShownThisOnce}</p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn target" onClick={() => window.print()}>
          <Printer aria-hidden size={20} />
          {say.door.print}
        </button>
        <button type="button" className="btn btn-primary target" onClick={onDone}>
          {done}
        </button>
      </div>
    </div>
  );
}
