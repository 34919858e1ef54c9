/** Which movement to start with: what was done last time first, then by search or by pattern. Closed ones say why and cannot be taken. */
import { begin, fitOf, type LaneView } from '@waxwing/core/floor';
import { becauseWords } from '@waxwing/core/formats';
import { label, type MovementSummary, type Pattern, PATTERNS } from '@waxwing/core/movement';
import { useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { Still } from '../figures/still';
import { useFinder } from '../library/use-finder';
import { say } from '../words/say';
import { useTap } from './use-tap';

/** More than this nobody reads with a client waiting. */
const MOST_FOUND = 12;

export function ChooseMovement({ view, onDone }: { view: LaneView; onDone?: () => void }) {
  const [words, search] = useState('');
  const found = useFinder(words.trim());
  const byId = new Map(view.movements.map((movement) => [movement.id, movement]));
  const [pattern, setPattern] = useState<Pattern>();
  const searching = words.trim() !== '';
  // The index needs the server once; where that is away, names alone are looked through.
  const all =
    found === null ? view.movements.filter(named(words)) : found?.movements.flatMap((id) => byId.get(id) ?? []);
  const hits = (all ?? []).slice(0, MOST_FOUND);
  const ofPattern = view.movements.filter((movement) => movement.pattern === pattern);
  const before = lastTime(view);
  return (
    <section aria-label={say.floor.chooseAMovement} className="p-5">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-2xl">{say.floor.whichMovement}</h2>
        <input
          type="search"
          className="input input-lg w-full max-w-sm"
          aria-label={say.floor.findAMovement}
          placeholder={say.floor.findAMovement}
          value={words}
          onChange={(event) => search(event.target.value)}
        />
      </div>
      {searching ? (
        <Choices title={say.floor.found} movements={hits} view={view} onDone={onDone} />
      ) : (
        <>
          {before.length > 0 && <Choices title={say.floor.asLastTime} movements={before} view={view} onDone={onDone} />}
          <div role="group" aria-label={say.floor.byPattern} className="mb-4 flex flex-wrap gap-2">
            {PATTERNS.filter((one) => view.movements.some((movement) => movement.pattern === one)).map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={one === pattern}
                className={`btn target ${one === pattern ? 'btn-primary' : ''}`}
                onClick={() => setPattern(one === pattern ? undefined : one)}
              >
                {label(one)}
              </button>
            ))}
          </div>
          {pattern && <Choices title={label(pattern)} movements={byLevel(ofPattern)} view={view} onDone={onDone} />}
        </>
      )}
    </section>
  );
}

const named =
  (words: string) =>
  ({ name, aliases }: MovementSummary): boolean =>
    [name, ...aliases].some((one) => one.toLowerCase().includes(words.trim().toLowerCase()));

/** Family by family, the easiest first. */
const byLevel = (movements: readonly MovementSummary[]): MovementSummary[] =>
  movements.toSorted(
    (a, b) =>
      (a.families[0] ?? '').localeCompare(b.families[0] ?? '') || a.level - b.level || a.name.localeCompare(b.name),
  );

/** The movements of the latest session, in the order of the record. */
function lastTime(view: LaneView): MovementSummary[] {
  const days = Object.entries(view.record.sets).map(([id, sessions]) => ({ id, at: sessions.at(-1)?.at ?? '' }));
  const latest = days.reduce((most, { at }) => (at > most ? at : most), '').slice(0, 10);
  return days
    .filter(({ at }) => at.slice(0, 10) === latest)
    .sort((a, b) => a.at.localeCompare(b.at))
    .flatMap(({ id }) => view.movements.find((movement) => movement.id === id) ?? []);
}

function Choices({
  title,
  movements,
  view,
  onDone,
}: {
  title: string;
  movements: readonly MovementSummary[];
  view: LaneView;
  onDone: (() => void) | undefined;
}) {
  const tap = useTap(view.client.id);
  return (
    <div className="mb-6">
      <h3 className="mb-2 font-bold">{title}</h3>
      <ul className="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
        {movements.map((movement) => {
          const fit = fitOf(view, movement);
          // Coming back to what once hurt is the trainer's choice: the lane asks once more.
          const mayChoose = fit.status !== 'closed' || fit.code === 'hurt-before';
          return (
            <li key={movement.id}>
              <button
                type="button"
                disabled={!mayChoose}
                className="btn target h-auto w-full justify-start gap-3 py-2 text-left"
                onClick={() => {
                  tap(begin(view, movement.id, null, uuidv7));
                  onDone?.();
                }}
              >
                <Still movement={movement} className="h-14 w-14 shrink-0" />
                <span className="min-w-0">
                  <span className="block">{movement.name}</span>
                  <span className="block font-normal">
                    {fit.status === 'open'
                      ? movement.families.map(label).join(', ')
                      : `${fit.status === 'care' ? say.floor.withCare : say.floor.closed}: ${becauseWords(fit.because)}`}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
