/** Rows that are put in order by dragging their handle, or by keyboard: Space takes a row up, arrows carry it, Space puts it down. */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';

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
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  const place = (entry: { id: UniqueIdentifier } | null) => (entry ? ids.indexOf(String(entry.id)) + 1 : 0);
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name} ${place(active)} is taken up.`,
    onDragOver: ({ over }) => (over ? `Now at place ${place(over)} of ${ids.length}.` : undefined),
    onDragEnd: ({ over }) => (over ? `Put down at place ${place(over)}.` : undefined),
    onDragCancel: () => 'Put back where it was.',
  };
  return (
    <DndContext
      accessibility={{
        announcements,
        screenReaderInstructions: { draggable: 'Space takes it up, the arrow keys carry it, Space puts it down.' },
      }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ol className="space-y-2">
          {ids.map((id, i) => (
            <SortableRow key={id} id={id} label={`Move ${name} ${i + 1}`}>
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
