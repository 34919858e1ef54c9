/** The set in hand: which one, which side, how much and with what; one tap logs it, one more says how it felt. */
import type { MovementPage } from '@waxwing/core/formats';
import { aimOf, loadsFor, type Load } from '@waxwing/core/dosage';
import { EFFORTS, label } from '@waxwing/core/movement';
import { progressOf, totalsOf, type Entry } from '@waxwing/core/session';
import { Minus, Plus } from 'lucide-react';
import { useState } from 'react';
import { useKeys } from '../shell/use-keys';
import { nextUp, type LaneView } from './use-lane';

export function SetPanel({ view }: { view: LaneView }) {
  return view.page && view.entry ? <Sets view={view} page={view.page} entry={view.entry} /> : null;
}

function Sets({ view, page, entry }: { view: LaneView; page: MovementPage; entry: Entry }) {
  const { movement } = page;
  const { dose, sides } = movement;
  const target = aimOf(movement);
  const progress = progressOf(entry, sides);
  const totals = totalsOf(entry, sides);
  const past = view.record.sets[movement.id]?.at(-1)?.sets.at(-1);
  const loads = loadsFor(movement.kit, view.studio.kit);
  const held = nextUp(view).held;

  const [typed, type] = useState<number | null>(null);
  const [picked, pick] = useState<Load | null>(null);
  const amount = typed ?? entry.sets.at(-1)?.amount ?? past?.amount ?? target.low;
  const load = picked ?? usualLoad(loads, entry.sets.at(-1)?.kg ?? past?.kg);
  const at = load ? loads.findIndex((other) => other.label === load.label && other.kg === load.kg) : -1;
  const heavier = loads[at + 1];
  const lighter = at > 0 ? loads[at - 1] : undefined;
  const step = dose.mode === 'reps' ? 1 : 5;
  const unit = dose.mode === 'reps' ? 'reps' : dose.mode === 'time' ? 'seconds' : 'metres';
  const side = progress.side === 'both' ? '' : `${label(progress.side)} side`;

  const log = () => {
    view.tap((record) =>
      record('set-done', {
        entryId: entry.id,
        side: progress.side,
        amount,
        kg: load?.kg ?? null,
        loadLabel: load?.label ?? null,
      }),
    );
    type(null);
  };
  useKeys(['s'], log);

  return (
    <section aria-label="Set" className="border-base-300 border-t p-5">
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-6">
        <p role="status" className="text-3xl font-bold">
          Set {progress.setNumber} <span className="quiet text-xl font-normal">of {target.sets.join('–')}</span>
          {side && <span className="ml-4">{side}</span>}
        </p>
        <p className="quiet">
          aim {target.low}–{target.high} {unit}
          {totals.sets > 0 &&
            ` · so far ${sides === 'each' ? `${totals.left} left, ${totals.right} right` : totals.amount}`}
        </p>
      </div>
      <div className="flex flex-wrap items-stretch gap-2">
        <Stepper
          name={unit}
          value={String(amount)}
          onLess={amount >= step ? () => type(amount - step) : undefined}
          onMore={() => type(amount + step)}
        />
        {load && (
          <Stepper
            name="load"
            value={load.label}
            wide
            onLess={lighter && (() => pick(lighter))}
            onMore={heavier && !held ? () => pick(heavier) : undefined}
          />
        )}
        <button type="button" className="btn btn-primary min-h-20 min-w-40 flex-1 text-2xl" onClick={log}>
          {side ? `${label(progress.side)} done` : 'Set done'}
        </button>
      </div>
      {heavier && held && <p className="quiet mt-2">Not heavier: {held}.</p>}
      <EffortRow view={view} entry={entry} roundDone={sides !== 'each' || progress.side === 'left'} />
    </section>
  );
}

/** The load used last, or the next below it when it is not there any more; the lightest for a first time. */
function usualLoad(loads: readonly Load[], kg: number | null | undefined): Load | undefined {
  return (kg ? loads.findLast((load) => load.kg !== null && load.kg <= kg) : undefined) ?? loads[0];
}

function Stepper({
  name,
  value,
  wide,
  onLess,
  onMore,
}: {
  name: string;
  value: string;
  wide?: boolean;
  onLess: (() => void) | undefined;
  onMore: (() => void) | undefined;
}) {
  return (
    <div role="group" aria-label={name} className="flex min-h-20 items-stretch">
      <button
        type="button"
        className="btn h-auto w-14 px-0"
        aria-label={`Less: ${name}`}
        disabled={!onLess}
        onClick={onLess}
      >
        <Minus aria-hidden />
      </button>
      <output
        className={`flex flex-col items-center justify-center px-2 leading-none font-bold ${wide ? 'min-w-30 text-xl' : 'min-w-20 text-4xl'}`}
      >
        {value}
        {!wide && <span className="quiet mt-1 text-base font-normal">{name}</span>}
      </output>
      <button
        type="button"
        className="btn h-auto w-14 px-0"
        aria-label={`More: ${name}`}
        disabled={!onMore}
        onClick={onMore}
      >
        <Plus aria-hidden />
      </button>
    </div>
  );
}

/** How the last set felt, asked until it is answered. Both sides of a set get one answer. */
function EffortRow({ view, entry, roundDone }: { view: LaneView; entry: Entry; roundDone: boolean }) {
  const unanswered = entry.sets.filter((set) => set.effort === null);
  const asked = roundDone && unanswered.length > 0;
  const say = (effort: (typeof EFFORTS)[number]) => {
    if (asked)
      view.tap((record) => {
        for (const set of unanswered) record('effort-felt', { setId: set.id, effort });
      });
  };
  useKeys(['1', '2', '3', '4'], (key) => {
    const effort = EFFORTS[Number(key) - 1];
    if (effort) say(effort);
  });
  const last = entry.sets.findLast((set) => set.effort !== null);
  return (
    <div className="mt-3 min-h-16">
      {asked ? (
        <div
          role="group"
          aria-label="How did it feel?"
          className="grid grid-cols-4 items-center gap-2 sm:grid-cols-[auto_repeat(4,1fr)]"
        >
          <span className="pr-2 max-sm:col-span-4">Felt</span>
          {EFFORTS.map((effort) => (
            <button key={effort} type="button" className="btn target px-2" onClick={() => say(effort)}>
              {label(effort)}
            </button>
          ))}
        </div>
      ) : (
        last && <p className="quiet pt-3">Last set felt {last.effort}.</p>
      )}
    </div>
  );
}
