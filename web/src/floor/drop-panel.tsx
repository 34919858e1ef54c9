/** Going on at once with a lighter weight in the same set: which one, and how many were done with it. */
import { type LaneView, logDrop } from '@waxwing/core/floor';
import type { Drop } from '@waxwing/core/planning';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { say } from '../words/say';
import { Stepper } from './stepper';
import { useTap } from './use-tap';

export function DropPanel({ view, drop }: { view: LaneView; drop: Drop }) {
  const tap = useTap(view.client.id);
  const [typed, type] = useState<{ of: string; amount: number } | null>(null);
  if (!view.justDone) return null;
  const { justDone } = view;
  const { load } = drop;
  const of = `${justDone.set.id} ${load.label}`;
  const amount = typed?.of === of ? typed.amount : drop.amount;
  const log = (done: number) => tap(logDrop(justDone, done, load, uuidv7));
  return (
    <section aria-label={say.floor.lighterAtOnce} className="now-band border-base-300 border-t px-5 py-3">
      <p role="status" className="mb-2 text-2xl font-bold">
        {say.floor.nowNoRest(load.label)}
      </p>
      <div className="flex flex-wrap items-stretch gap-2">
        <Stepper
          name="reps"
          value={String(amount)}
          onLess={amount > 1 ? () => type({ of, amount: amount - 1 }) : undefined}
          onMore={() => type({ of, amount: amount + 1 })}
        />
        <button
          type="button"
          className="btn btn-primary h-auto min-h-16 min-w-40 flex-1 text-2xl"
          onClick={() => log(amount)}
        >
          {say.floor.doneWith(load.label)}
        </button>
        <button type="button" className="btn target h-auto" onClick={() => log(0)}>
          {say.floor.notTodayRest}
        </button>
      </div>
    </section>
  );
}
