/**
 * The tape: the session drawn to scale in time, item by item, with running minutes.
 * An item is carried along its block by dragging, or by keyboard: Space takes it up, arrows carry it, Space puts it down.
 */
import './tape.css';

import { DndContext } from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { label } from '@waxwing/core/movement';
import {
  type Block,
  minuteWords,
  type Plan,
  type PlanItem,
  secondsOf,
  type Segment,
  type SegmentKind,
} from '@waxwing/core/planning';
import { useState } from 'react';

import { useSorting } from '../shell/use-sorting';
import { say } from '../words/say';
import type { World } from './use-world';

export const SEGMENT_WORDS: Readonly<Record<SegmentKind, string>> = say.plan.segmentWords;

/** What an item is called on the tape: its movement, or how many there are. */
export const itemName = (item: PlanItem, { context }: World): string => {
  const names = [
    ...new Set(
      item.lanes.map(({ movementId, withId }) => {
        const own = context.find(movementId)?.name ?? movementId;
        return withId === null ? own : say.plan.oneWith(own, context.find(withId)?.name ?? withId);
      }),
    ),
  ];
  return names.length > 2 ? say.plan.oneAndMore(names[0] ?? '', names.length - 1) : names.join(' / ');
};

interface Props {
  plan: Plan;
  world: World;
  segments: readonly Segment[];
  onMove: (blockId: string, from: number, to: number) => void;
  /** While an item is carried, where it would go; without a block when it is put down. */
  onCarry: (blockId: string | null, from: number, to: number) => void;
  onOpen: (itemId: string) => void;
}

export function Tape({ plan, world, segments, onMove, onCarry, onOpen }: Props) {
  const total = secondsOf(segments);
  const slot = plan.minutes * 60;
  const length = Math.max(total, slot, 60);
  const step = length > 5400 ? 600 : length > 1500 ? 300 : 60;
  // What is under the hand or the focus, for pieces that are too narrow for their name.
  const [told, tell] = useState<string | null>(null);
  const marks = Array.from({ length: Math.ceil(length / step) }, (_, i) => i * step);
  return (
    <section aria-label={say.plan.tape} className="relative">
      <div className="flex h-24 w-full" style={{ width: `${(100 * Math.max(total, 1)) / length}%` }}>
        {plan.blocks.map((block) => (
          <TapeBlock
            key={block.id}
            block={block}
            world={world}
            segments={segments.filter(({ blockId }) => blockId === block.id)}
            onMove={onMove}
            onCarry={onCarry}
            onOpen={onOpen}
            onTell={tell}
          />
        ))}
      </div>
      <div className="border-base-content relative h-6 border-t-2" aria-hidden>
        {marks.map((at) => (
          <span
            key={at}
            className="absolute top-0 border-l border-current pl-1 text-xs"
            style={{ left: `${(100 * at) / length}%` }}
          >
            {at / 60}
          </span>
        ))}
        <span
          className="absolute -top-24 h-29 border-l-4 border-current"
          style={{ left: `calc(${(100 * slot) / length}% - 4px)` }}
          title={say.plan.wholeMinutes(plan.minutes)}
        />
      </div>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <p role="status" className="text-2xl font-bold">
          {minuteWords(total)} <span className="quiet text-lg font-normal">{say.plan.of(plan.minutes)}</span>
          {total > slot && <span className="ml-3">{say.plan.over(minuteWords(total - slot))}</span>}
        </p>
        <ul className="flex flex-wrap gap-x-4 text-sm" aria-label={say.plan.legend}>
          {(Object.keys(SEGMENT_WORDS) as SegmentKind[]).map((kind) => (
            <li key={kind} className="flex items-center gap-1.5">
              <span className={`tape-${kind} inline-block h-4 w-4`} aria-hidden /> {SEGMENT_WORDS[kind]}
            </li>
          ))}
        </ul>
        {/* The piece itself says it to who cannot see this. */}
        <p className="ml-auto font-semibold" aria-hidden>
          {told}
        </p>
      </div>
    </section>
  );
}

function TapeBlock({
  block,
  world,
  segments,
  onMove,
  onCarry,
  onOpen,
  onTell,
}: Omit<Props, 'plan'> & { block: Block; onTell: (told: string | null) => void }) {
  const seconds = segments.reduce((sum, one) => sum + one.seconds, 0);
  const ids = block.items.map(({ id }) => id);
  // A click opens an item; only a pull of some length carries it.
  const { context, places } = useSorting(ids, say.plan.itemOf(label(block.kind).toLowerCase()), 6);
  if (seconds === 0) return null;
  return (
    <div className="@container min-w-0" style={{ flex: `${seconds} 1 0` }}>
      <p className="h-4 truncate pr-1 text-xs font-bold">
        <span className="hidden @min-[3.25rem]:inline">{label(block.kind)}</span>
      </p>
      <DndContext
        {...context}
        onDragOver={(event) => onCarry(block.id, ...places(event))}
        onDragCancel={() => onCarry(null, 0, 0)}
        onDragEnd={(event) => {
          onCarry(null, 0, 0);
          const [from, to] = places(event);
          if (from !== to) onMove(block.id, from, to);
        }}
      >
        <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
          <div className="flex h-18">
            {block.items.map((item) => (
              <TapeItem
                key={item.id}
                item={item}
                name={itemName(item, world)}
                segments={segments.filter(({ itemId }) => itemId === item.id)}
                onOpen={onOpen}
                onTell={onTell}
              />
            ))}
          </div>
        </SortableContext>
      </DndContext>
    </div>
  );
}

function TapeItem({
  item,
  name,
  segments,
  onOpen,
  onTell,
}: {
  item: PlanItem;
  name: string;
  segments: readonly Segment[];
  onOpen: (itemId: string) => void;
  onTell: (told: string | null) => void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: item.id });
  const seconds = segments.reduce((sum, one) => sum + one.seconds, 0);
  const words = say.plan.fromMinute(name, minuteWords(seconds), Math.floor((segments[0]?.from ?? 0) / 60));
  return (
    <button
      type="button"
      ref={setNodeRef}
      style={{ flex: `${seconds} 1 0`, transform: CSS.Translate.toString(transform), transition }}
      className={`border-base-100 @container flex min-w-0 flex-col border-r-2 text-left ${isDragging ? 'relative z-10' : ''}`}
      onPointerEnter={() => onTell(words)}
      onPointerLeave={() => onTell(null)}
      onFocus={() => onTell(words)}
      onBlur={() => onTell(null)}
      {...attributes}
      {...listeners}
      aria-label={`${words}${item.locked ? say.plan.locked : ''}`}
      onClick={() => onOpen(item.id)}
    >
      <span className="flex h-9 w-full">
        {segments.map((segment, i) => (
          <span key={i} className={`tape-${segment.kind}`} style={{ flex: `${segment.seconds} 1 0` }} />
        ))}
      </span>
      {/* Names stand only where there is room for a word. */}
      <span className="hidden w-full overflow-hidden wrap-normal pt-0.5 pr-1 text-xs leading-tight @min-[4.25rem]:line-clamp-2">
        {item.locked && '■ '}
        {name}
      </span>
    </button>
  );
}
