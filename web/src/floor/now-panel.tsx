/** What to say or do now: a correction when a fault is open, a stop when it is dangerous, else the cue that lands best. */
import type { Outcome, Suggestion } from '@waxwing/core/coaching';
import {
  adviceFor,
  cuesFor,
  type Draft,
  fitOf,
  type LaneView,
  movementOf,
  nextOther,
  sinceLastTime,
  swapTo,
} from '@waxwing/core/floor';
import { type Correction, type Fault, FOCUS_WORDS, label } from '@waxwing/core/movement';
import { isOpen } from '@waxwing/core/progress';
import { ChevronLeft, ChevronRight, PersonStanding } from 'lucide-react';
import { useEffect, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';

import { FigurePlayer } from '../figures/player';
import { Dialog } from '../shell/dialog';
import { useKeys } from '../shell/use-keys';
import { correctionReason } from '../words/coaching-words';
import { Marked } from '../words/marked';
import { sinceWords } from '../words/reasons';
import { say } from '../words/say';
import { SeverityMark } from '../words/severity-mark';
import { give } from './give';
import { speak } from './sound';
import { TeachFigure } from './teach-figure';
import { useTap } from './use-tap';

/** The movement that comes after the one in hand. */
function NextName({ view }: { view: LaneView }) {
  const next = nextOther(view);
  if (!next) return null;
  return (
    <span className="quiet float-right max-w-72 truncate pl-4 max-sm:hidden">
      <Marked
        words={say.floor.nextIs(movementOf(view, next.lane.movementId)?.name ?? '')}
        as={(name) => <span className="font-semibold">{name}</span>}
      />
    </span>
  );
}

export function NowPanel({ view }: { view: LaneView }) {
  const [now] = useState(() => new Date().toISOString());
  const { page } = view;
  if (!page)
    return (
      <section aria-label={say.floor.now} className="now-band min-h-40 flex-1 p-5">
        <p className="big-words">{view.movement?.name}</p>
        <p className="quiet">{say.floor.whatToSayIsNot}</p>
      </section>
    );
  const advice = adviceFor(view, now);
  switch (advice.kind) {
    case 'stop':
      return <StopCard view={view} fault={advice.fault} correction={advice.correction} />;
    case 'correct':
      return <CorrectionCard view={view} primary={advice.primary} next={advice.next} />;
    case 'leave':
      return (
        <section aria-label={say.floor.now} className="now-band p-5">
          <p className="quiet">{page.movement.name}</p>
          <p className="text-4xl font-bold">{say.floor.leaveIt(advice.fault.name.toLowerCase())}</p>
          <p>{say.floor.whatIsLeftToTry}</p>
        </section>
      );
    case 'clear':
      return <TeachCard view={view} now={now} />;
  }
}

/** Demonstrates the movement, or a fault beside the clean rep, as large as the screen allows. */
function Demonstrate({ view, fault }: { view: LaneView; fault?: Fault }) {
  const [open, setOpen] = useState(false);
  useKeys(['d'], () => setOpen(true));
  const { page } = view;
  if (!page) return null;
  return (
    <>
      <button
        type="button"
        className={`btn target ${fault ? 'max-sm:w-14 max-sm:px-0' : ''}`}
        aria-label={say.floor.demonstrate}
        onClick={() => setOpen(true)}
      >
        {fault && <PersonStanding aria-hidden className="sm:hidden" />}
        <span className={fault ? 'max-sm:hidden' : ''}>{say.floor.demonstrate}</span>
      </button>
      {open && (
        <Dialog title={page.movement.name} onClose={() => setOpen(false)}>
          <FigurePlayer movement={page.movement} faultId={fault?.id} large />
        </Dialog>
      )}
    </>
  );
}

function TeachCard({ view, now }: { view: LaneView; now: string }) {
  const cues = cuesFor(view, now);
  // The set-up before the first set; the first action from then on, until the trainer turns the page.
  const [turned, turn] = useState<number | null>(null);
  const index = Math.min(turned ?? (view.entry && view.entry.sets.length > 0 ? 1 : 0), cues.length - 1);
  const step = (by: number) => turn((index + by + cues.length) % cues.length);
  useKeys(['ArrowLeft'], () => step(-1));
  useKeys(['ArrowRight'], () => step(1));
  const shown = cues[index];
  const words = shown?.cue.text;
  useEffect(() => {
    if (words) speak(words);
  }, [words]);
  const since = sinceLastTime(view);
  return (
    <section
      aria-label={say.floor.now}
      className="now-band flex flex-1 gap-4 px-5 py-3 [@media(max-height:760px)]:max-sm:py-1"
    >
      {view.page && <TeachFigure movement={view.page.movement} />}
      <div className="min-w-0 flex-1">
        <p>
          <NextName view={view} />
          <span className="font-bold">{view.page?.movement.name}</span>
          {shown && (
            <span className="quiet">
              {' '}
              · {label(shown.cue.phase)} · {shown.cue.channel}
            </span>
          )}
          {since && (
            <span className="block [@media(max-height:760px)]:max-sm:hidden">
              {sinceWords(since, (id) => nameOf(view, id))}
            </span>
          )}
        </p>
        <p role="status" className="big-words my-1 text-balance">
          {shown ? shown.cue.text : say.floor.noCueIsWrittenFor}
        </p>
        {view.page?.movement.breath && (
          <p className="quiet [@media(max-height:760px)]:max-sm:hidden">{view.page.movement.breath}</p>
        )}
        {shown && (
          <div className="mt-1 flex flex-wrap items-center gap-2">
            <button type="button" className="btn target" aria-label={say.floor.cueBefore} onClick={() => step(-1)}>
              <ChevronLeft aria-hidden />
            </button>
            <button type="button" className="btn target" aria-label={say.floor.nextCue} onClick={() => step(1)}>
              <ChevronRight aria-hidden />
            </button>
            <p className="quiet min-w-0 flex-1 leading-tight max-sm:hidden">
              {say.floor.words(
                FOCUS_WORDS[shown.cue.focus],
                shown.tried > 0 ? say.floor.helpedOfTimes(shown.worked, shown.tried) : say.floor.notTriedYet,
              )}
            </p>
            <Demonstrate view={view} />
          </div>
        )}
      </div>
    </section>
  );
}

/** Gives a swap as the correction, and swaps. */
function giveSwap(view: LaneView, fault: Fault, correction: Correction, addresses: readonly Fault[]): Draft[] {
  const { swapTo: movementId } = correction;
  if (movementId === undefined) return [];
  return [
    ...give(view, fault, correction, addresses, null),
    ...swapTo(view, movementId, say.floor.for(fault.name.toLowerCase()), uuidv7),
  ];
}

const nameOf = (view: LaneView, id: string | undefined): string => movementOf(view, id ?? '')?.name ?? '';

function CorrectionCard({ view, primary, next }: { view: LaneView; primary: Suggestion; next: Suggestion | null }) {
  const { fault, correction, cue, addresses, why } = primary;
  const tap = useTap(view.client.id);
  // Only what is meant for the client is spoken.
  const spoken = cue?.text ?? correction.say;
  useEffect(() => {
    if (spoken !== undefined) speak(spoken);
  }, [spoken]);
  return (
    <section aria-label={say.floor.now} className="now-band now-stays flex-1 px-5 py-3 max-sm:py-2">
      <div className="flex flex-wrap items-center gap-2 max-sm:flex-nowrap">
        <SeverityMark severity={addresses[0]?.severity ?? fault.severity} />
        <span className="font-bold">{addresses.map((f) => f.name).join(' + ')}</span>
        <span className="quiet max-sm:hidden">· {label(correction.kind)}</span>
        <span className="ml-auto">
          <Demonstrate view={view} fault={addresses[0] ?? fault} />
        </span>
      </div>
      <p role="status" className="my-2 big-words text-balance">
        {spoken ?? correction.do}
      </p>
      {spoken !== undefined && correction.do !== undefined && <p>{correction.do}</p>}
      <p className="quiet mt-1 mb-2 leading-snug">{correctionReason(why)}</p>
      {correction.kind === 'swap' ? (
        <button
          type="button"
          className="btn btn-primary target w-full"
          onClick={() => tap(giveSwap(view, fault, correction, addresses))}
        >
          {say.floor.swapTo(nameOf(view, correction.swapTo))}
        </button>
      ) : (
        <Outcomes onOutcome={(outcome) => tap(give(view, fault, correction, addresses, outcome))} />
      )}
      {next && (
        <p className="quiet mt-3 max-sm:hidden">
          {say.floor.ifNot(label(next.correction.kind).toLowerCase())}
          {next.cue?.text ?? next.correction.say ?? next.correction.do}
        </p>
      )}
    </section>
  );
}

const OUTCOME_BUTTONS: readonly { outcome: Outcome; name: string; key: string }[] = [
  { outcome: 'fixed', name: say.floor.fixed, key: 'f' },
  { outcome: 'better', name: say.floor.better, key: 'b' },
  { outcome: 'same', name: say.floor.noChange, key: 'n' },
];

function Outcomes({ onOutcome }: { onOutcome: (outcome: Outcome) => void }) {
  useKeys(
    OUTCOME_BUTTONS.map(({ key }) => key),
    (pressed) => {
      const hit = OUTCOME_BUTTONS.find(({ key }) => key === pressed);
      if (hit) onOutcome(hit.outcome);
    },
  );
  return (
    <div role="group" aria-label={say.floor.didItWork} className="grid grid-cols-3 gap-2">
      {OUTCOME_BUTTONS.map(({ outcome, name }, i) => (
        <button
          key={outcome}
          type="button"
          className={`btn target max-sm:px-1 max-sm:text-base ${i === 0 ? 'btn-primary' : ''}`}
          onClick={() => onOutcome(outcome)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}

function StopCard({ view, fault, correction }: { view: LaneView; fault: Fault; correction: Correction | null }) {
  const swap = fault.corrections.find((c) => c.swapTo !== undefined);
  const tap = useTap(view.client.id);
  const target = movementOf(view, swap?.swapTo ?? '');
  const open = target !== undefined && isOpen(fitOf(view, target));
  return (
    <section role="alert" aria-label={say.floor.stop} className="alarm now-stays-alarm flex-1 p-5 max-sm:p-3">
      <p className="big-words">{say.floor.stopTheSet}</p>
      <p className="text-2xl font-bold">{fault.name}</p>
      <p className="my-2">{correction?.say ?? correction?.do ?? say.floor.endTheSet}</p>
      <p className="mb-3">{say.floor.thisIsNotSomethingTo}</p>
      {swap && open && (
        <button
          type="button"
          className="btn target mb-2 w-full"
          onClick={() => tap(giveSwap(view, fault, swap, [fault]))}
        >
          {say.floor.swapTo(nameOf(view, swap.swapTo))}
        </button>
      )}
      {correction && (
        <>
          <p className="mb-1">{say.floor.afterTheRestWithLess}</p>
          <Outcomes onOutcome={(outcome) => tap(give(view, fault, correction, [fault], outcome))} />
        </>
      )}
    </section>
  );
}
