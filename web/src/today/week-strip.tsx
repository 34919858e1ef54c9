/** A week to move through: who comes on each day, and where a plan can be dropped. */
import { useDroppable } from '@dnd-kit/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';

import { longDayWords, momentOf, weekdayWords } from '../words/dates';
import { say } from '../words/say';
import type { Comer } from './day';
import { mondayOf } from './span';

const WEEK = 7;
/** Names that a day has room for. */
const MOST = 3;

interface Strip {
  /** The day that is looked at. */
  day: number;
  today: number;
  comers: readonly Comer[];
  onDay: (day: number) => void;
}

export function WeekStrip({ day, today, comers, onDay }: Strip) {
  const monday = mondayOf(day);
  return (
    <nav aria-label={say.today.week} className="mb-6 flex items-stretch gap-1">
      <Step name="The week before" onClick={() => onDay(day - WEEK)}>
        <ChevronLeft aria-hidden />
      </Step>
      <ol className="grid min-w-0 flex-1 grid-cols-7">
        {Array.from({ length: WEEK }, (_, i) => monday + i).map((one) => (
          <Day
            key={one}
            day={one}
            isToday={one === today}
            isShown={one === day}
            isPast={one < today}
            names={comers.filter((comer) => comer.day === one).flatMap(({ names }) => names)}
            onDay={onDay}
          />
        ))}
      </ol>
      <Step name="The week after" onClick={() => onDay(day + WEEK)}>
        <ChevronRight aria-hidden />
      </Step>
    </nav>
  );
}

const Step = ({ name, onClick, children }: { name: string; onClick: () => void; children: React.ReactNode }) => (
  <button type="button" className="btn h-auto min-h-16 px-1 sm:px-2" aria-label={name} title={name} onClick={onClick}>
    {children}
  </button>
);

function Day({
  day,
  isToday,
  isShown,
  isPast,
  names,
  onDay,
}: {
  day: number;
  isToday: boolean;
  isShown: boolean;
  isPast: boolean;
  names: readonly string[];
  onDay: (day: number) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: day });
  const at = momentOf({ day, minute: 0 });
  return (
    <li ref={setNodeRef} className="min-w-0">
      <button
        type="button"
        aria-label={`${longDayWords(at)}${isToday ? say.today.today : ''}, ${names.length === 0 ? (isPast ? say.today.nobodyCame : say.today.nobodyPlanned) : names.join(', ')}`}
        aria-current={isShown ? 'date' : undefined}
        data-over={isOver}
        className={`flex h-full min-h-16 w-full cursor-pointer flex-col border-t-4 px-1 pt-1 pb-2 text-left sm:px-2 ${
          isToday ? 'border-accent' : 'border-base-300'
        } ${isShown ? 'bg-base-200' : ''} ${isOver ? 'bg-base-200 outline-4 outline-dashed' : 'hover:bg-base-200'}`}
        onClick={() => onDay(day)}
      >
        <span className={isShown ? 'font-bold underline decoration-2 underline-offset-4' : ''}>
          <span className="block sm:inline">{weekdayWords(at)}</span> {at.getDate()}
        </span>
        <span className="quiet hidden truncate text-sm sm:block">
          {names.slice(0, MOST).join(', ')}
          {names.length > MOST && ` +${names.length - MOST}`}
        </span>
        <span className="quiet text-sm sm:hidden">{names.length > 0 && names.length}</span>
      </button>
    </li>
  );
}
