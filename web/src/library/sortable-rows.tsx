/** Rows that are put in order by dragging their handle, or by keyboard: Space takes a row up, arrows carry it, Space puts it down. */
import { DndContext } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

import { useSorting } from '../shell/use-sorting';
import { say } from '../words/say';

export function SortableRows({
  ids,
  name,
  onMove,
  children,
}: {
  ids: readonly string[];
  /** What a row is, for those who hear it: `cue`. */
  name: string;
  onMove: (from: number, to: number) => void;
  children: (index: number) => ReactNode;
}) {
  const { context, places } = useSorting(ids, name);
  return (
    <DndContext
      {...context}
      onDragEnd={(event) => {
        const [from, to] = places(event);
        if (from !== to) onMove(from, to);
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ol className="space-y-2">
          {ids.map((id, i) => (
            <SortableRow key={id} id={id} label={say.library.move(name, i + 1)}>
              {children(i)}
            </SortableRow>
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function SortableRow({ id, label, children }: { id: string; label: string; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-start gap-1 ${isDragging ? 'bg-base-200 relative z-10' : ''}`}
    >
      <button
        type="button"
        className="btn btn-ghost btn-sm mt-1 px-1"
        aria-label={label}
        {...attributes}
        {...listeners}
      >
        <GripVertical aria-hidden size={18} />
      </button>
      <div className="min-w-0 flex-1">{children}</div>
    </li>
  );
}
