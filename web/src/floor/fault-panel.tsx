/** The faults to watch for, grouped by where to stand, each one tap; and the place to stand for this set. */
import { useQuery } from '@tanstack/react-query';
import { groupByView } from '@waxwing/core/coaching';
import {
  atStay,
  causeMeant,
  draft,
  type JustDone,
  type LaneView,
  likelihood,
  nameCause,
  possibleCauses,
  seeFault,
  type Stand,
  standFor,
} from '@waxwing/core/floor';
import {
  buildFinding,
  causeWords,
  type Fault,
  label,
  type Position,
  searchTextOf,
  type View,
  VIEWS,
  viewWords,
} from '@waxwing/core/movement';
import { Video } from 'lucide-react';
import { lazy, Suspense, useMemo, useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { faultKindsQuery } from '../api/queries';
import { Dialog } from '../shell/dialog';
import { useKeys } from '../shell/use-keys';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';
import { StandPlan } from './stand-plan';
import { useTap } from './use-tap';

/** Fetched when somebody is first watched. */
const WatchSet = lazy(async () => ({ default: (await import('./watch-set')).WatchSet }));

/** Faults that a search offers. */
const MOST_FOUND = 4;

const KEYS = ['q', 'w', 'e', 'r', 't', 'y', 'z', 'x'];

export function FaultPanel({ view }: { view: LaneView }) {
  const { page, entry } = view;
  const faults = page?.movement.faults ?? [];
  const likely = likelihood(view);
  const groups = groupByView(faults, likely);
  const ordered = groups.flatMap((group) => group.faults);
  const tap = useTap(view.client.id);
  const last = view.justDone?.entry.id === entry?.id ? view.justDone : null;
  // While a set is rested from, what was seen was seen in it; a press says otherwise.
  const [chosen, choose] = useState<{ setId: string; of: 'last' | 'next' }>();
  const of = chosen?.setId === last?.set.id ? chosen?.of : undefined;
  const inLast = last !== null && (of ?? (view.rest ? 'last' : 'next')) === 'last';
  const see = (fault: Fault) => tap(seeFault(view, fault.id, inLast ? last : null, uuidv7));
  useKeys(KEYS, (key) => {
    const fault = ordered[KEYS.indexOf(key)];
    if (fault) see(fault);
  });
  const stand = standFor(view);
  return (
    <section aria-label={say.common.faults} className="border-base-300 border-t px-5 py-3 lg:border-t-0 lg:border-l">
      <Watch key={view.page?.movement.id} view={view}>
        {stand && <Place view={view} stand={stand} />}
      </Watch>
      <h2 className="sr-only">{say.floor.whatDoYouSee}</h2>
      <MarkJustDone view={view} />
      {last && (
        <div role="group" aria-label={say.floor.seenIn} className="mb-3 grid grid-cols-2 gap-2">
          {(['last', 'next'] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={inLast === (one === 'last')}
              className={`btn target px-1 ${inLast === (one === 'last') ? 'btn-primary' : ''}`}
              onClick={() => choose({ setId: last.set.id, of: one })}
            >
              {one === 'last' ? say.floor.inTheSetJustDone : say.floor.inTheSetToCome}
            </button>
          ))}
        </div>
      )}
      <FaultSearch view={view} onSee={see} />
      <Causes view={view} />
      {groups.map(({ view: place, faults: group }) => (
        <div key={place} className="mb-3">
          <h3 className="mb-1">{say.floor.showsBest(viewWords(place, view.movement?.position).toLowerCase())}</h3>
          <ul className="space-y-2">
            {group.map((fault) => (
              <li key={fault.id}>
                <FaultButton
                  fault={fault}
                  seen={entry?.faults.find((f) => f.faultId === fault.id)}
                  onSee={() => see(fault)}
                />
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

/** Only who agreed to it is watched by a camera. While it watches, it says itself where it stands. */
function Watch({ view, children }: { view: LaneView; children: React.ReactNode }) {
  const [open, setOpen] = useState(false);
  const movement = view.page?.movement;
  if (!movement || !view.client.mayFilm) return children;
  if (open)
    return (
      <Suspense fallback={<p className="quiet mb-3">{say.floor.openingTheCamera}</p>}>
        <WatchSet view={view} movement={movement} onClose={() => setOpen(false)} />
      </Suspense>
    );
  return (
    <>
      {children}
      <button type="button" className="btn target mb-3 w-full" onClick={() => setOpen(true)}>
        <Video aria-hidden />
        {say.floor.watchTheSet}
      </button>
    </>
  );
}

const PLACE_WORDS: Readonly<Record<View, string>> = say.floor.placeWords;
/** Beside somebody who lies. */
const LYING_WORDS: Readonly<Partial<Record<Position, Partial<Record<View, string>>>>> = {
  supine: { front: say.floor.above, back: say.floor.headsEnd },
  prone: { front: say.floor.headsEnd, back: say.floor.above },
  'side-lying': { side: say.floor.above },
};

/** Where to stand for this set, and where the trainer really does: one tap says so, and the sets to come go by it. */
function Place({ view, stand: { told, said } }: { view: LaneView; stand: Stand }) {
  const tap = useTap(view.client.id);
  const now = said ?? told;
  const position = view.movement?.position;
  return (
    <div className="mb-3">
      <div className="mb-2 flex items-center gap-4">
        <StandPlan view={now} {...(position ? { position } : {})} />
        <p>
          <span className="quiet block">
            {said === null || said === told ? say.floor.standForThisSet : say.floor.youStand}
          </span>
          <span className="text-2xl font-bold">{viewWords(now, position)}</span>
        </p>
      </div>
      <div role="group" aria-label={say.floor.iStand} className="grid grid-cols-4 gap-1">
        {VIEWS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={one === now}
            aria-label={say.floor.iStandAt(viewWords(one, position).toLowerCase())}
            className={`btn target px-1 ${one === now ? 'btn-primary' : ''}`}
            onClick={() => tap(atStay(view, uuidv7, (entryId) => [draft(uuidv7(), 'stood', { entryId, view: one })]))}
          >
            {(position && LYING_WORDS[position]?.[one]) ?? PLACE_WORDS[one]}
          </button>
        ))}
      </div>
    </div>
  );
}

/** Causes that a panel has room for. */
const MOST_CAUSES = 3;

/** Why it comes about, one tap each: what changes that is then said first. */
function Causes({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const causes = possibleCauses(view).slice(0, MOST_CAUSES);
  if (causes.length === 0) return null;
  return (
    <div role="group" aria-label={say.floor.whatMakesIt} className="mb-3 flex flex-wrap gap-2">
      <p className="quiet w-full">{say.floor.whatMakesIt}</p>
      {causes.map(({ cause, named }) => (
        <button
          key={cause}
          type="button"
          aria-pressed={named}
          className={`btn target px-3 font-normal ${named ? 'btn-primary' : ''}`}
          onClick={() => tap(nameCause(view, cause, !named, uuidv7))}
        >
          {label(causeWords(cause))}
        </button>
      ))}
    </div>
  );
}

/** The set that was done last, when something else is on the screen by now: what was seen in it can still be marked. */
export function MarkJustDone({ view }: { view: LaneView }) {
  const { justDone, entry } = view;
  const [open, setOpen] = useState(false);
  if (!justDone?.page || justDone.entry.id === entry?.id) return null;
  const name = justDone.page.movement.name;
  return (
    <>
      <button
        type="button"
        className="btn target mb-3 h-auto w-full justify-start py-2 text-left"
        onClick={() => setOpen(true)}
      >
        <span>
          {say.floor.markAFaultInThe}
          <span className="quiet block font-normal">{name}</span>
        </span>
      </button>
      {open && (
        <Dialog title={say.floor.seenInTheSetJust(name.toLowerCase())} onClose={() => setOpen(false)}>
          <JustDoneFaults view={view} justDone={justDone} onDone={() => setOpen(false)} />
        </Dialog>
      )}
    </>
  );
}

function JustDoneFaults({ view, justDone, onDone }: { view: LaneView; justDone: JustDone; onDone: () => void }) {
  const tap = useTap(view.client.id);
  const faults = justDone.page?.movement.faults ?? [];
  return (
    <ul className="grid gap-2 sm:grid-cols-2">
      {groupByView(faults)
        .flatMap((group) => group.faults)
        .map((fault) => (
          <li key={fault.id}>
            <FaultButton
              fault={fault}
              seen={justDone.entry.faults.find((one) => one.faultId === fault.id)}
              onSee={() => {
                tap(seeFault(view, fault.id, justDone, uuidv7));
                onDone();
              }}
            />
          </li>
        ))}
    </ul>
  );
}

/** Looks a fault up by any word of it; what the movement has no fault for becomes a note. */
function FaultSearch({ view, onSee }: { view: LaneView; onSee: (fault: Fault) => void }) {
  const [words, search] = useState('');
  const field = useRef<HTMLInputElement>(null);
  useKeys(['/'], () => field.current?.focus());
  const movement = view.page?.movement;
  const { data: kinds } = useQuery(faultKindsQuery);
  // The library's own search over this one movement: kinds, synonyms and slips of the finger included, and no server needed.
  const searching = words.trim() !== '';
  const names = useMemo(() => view.movements.map(({ name }) => name), [view.movements]);
  const finding = useMemo(
    () => (searching && movement ? buildFinding([searchTextOf(movement)], kinds, names) : undefined),
    [searching, movement, kinds, names],
  );
  const ids = finding?.faults(words, MOST_FOUND).flatMap(({ movements }) => movements.map(({ faultId }) => faultId));
  const found = ids?.flatMap((id) => movement?.faults.find((fault) => fault.id === id) ?? []) ?? [];
  const done = () => {
    search('');
    field.current?.blur();
  };
  const tap = useTap(view.client.id);
  const note = (text: string) => {
    tap([draft(uuidv7(), 'note-written', { text: `${view.movement?.name ?? ''}: ${text}` })]);
    done();
  };
  // What was meant, where this movement lists no such fault: it is noted by the name that everybody knows.
  const other = found.length === 0 ? finding?.meant(words) : undefined;
  const cause = searching ? causeMeant(view, words) : undefined;
  return (
    <div className="mb-3">
      <input
        ref={field}
        type="search"
        className="input input-lg w-full text-xl"
        aria-label={say.floor.somethingElseYouSee}
        placeholder={say.floor.somethingElseWobbly}
        maxLength={200}
        value={words}
        onChange={(event) => search(event.target.value)}
      />
      {searching && (
        <ul className="mt-2 space-y-2">
          {cause !== undefined && (
            <li>
              <button
                type="button"
                className="btn target w-full justify-start"
                onClick={() => {
                  tap(nameCause(view, cause, true, uuidv7));
                  done();
                }}
              >
                {say.floor.itIsBecause(causeWords(cause))}
              </button>
            </li>
          )}
          {found.map((fault) => (
            <li key={fault.id}>
              <button
                type="button"
                className="btn target h-auto w-full justify-start gap-3 py-2 text-left"
                onClick={() => {
                  onSee(fault);
                  done();
                }}
              >
                <SeverityMark severity={fault.severity} size={24} />
                <span className="min-w-0">
                  {fault.name}
                  <span className="quiet block font-normal">{fault.looksLike}</span>
                </span>
              </button>
            </li>
          ))}
          {other && (
            <li>
              <button
                type="button"
                className="btn target h-auto w-full justify-start gap-3 py-2 text-left"
                onClick={() => note(other.name)}
              >
                <SeverityMark severity={other.severity} size={24} />
                <span className="min-w-0">
                  {say.floor.note(other.name)}
                  <span className="quiet block font-normal">
                    {say.floor.stopAndLookIfIt(other.severity === 'stop', other.means)}
                  </span>
                </span>
              </button>
            </li>
          )}
          <li>
            <button type="button" className="btn target w-full justify-start" onClick={() => note(words.trim())}>
              {say.floor.noteTyped(words.trim())}
            </button>
          </li>
        </ul>
      )}
    </div>
  );
}

function FaultButton({
  fault,
  seen,
  onSee,
}: {
  fault: Fault;
  seen: { times: number; open: boolean } | undefined;
  onSee: () => void;
}) {
  const open = seen?.open ?? false;
  return (
    <button
      type="button"
      aria-pressed={open}
      title={fault.looksLike}
      className={`btn target h-auto w-full justify-start gap-3 py-2 text-left font-semibold ${open ? 'border-error border-2' : ''}`}
      onClick={onSee}
    >
      <SeverityMark severity={fault.severity} size={24} />
      <span className="flex-1">{fault.name}</span>
      {seen && <span className="quiet font-normal">{say.floor.seenFixed(open, seen.times)}</span>}
    </button>
  );
}
