import {
  Announcements,
  DndContext,
  DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ReactNode } from 'react';
import { SIZE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';

interface Props {
  ids: string[];
  labels: string[];
  onMove: (from: number, to: number) => void;
  render: (id: string, handle: ReactNode) => ReactNode;
}

function Item({ id, label, render }: { id: string; label: string; render: Props['render'] }) {
  const palette = usePalette();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
  });
  const handle = (
    <button
      ref={setActivatorNodeRef}
      {...attributes}
      {...listeners}
      type="button"
      aria-label={`Move ${label}`}
      style={{
        width: SIZE.touch,
        height: SIZE.touch,
        border: 0,
        background: 'transparent',
        color: palette.quiet,
        cursor: 'grab',
        touchAction: 'none',
        fontSize: 20,
        lineHeight: 1,
      }}
    >
      ⠿
    </button>
  );
  return (
    <div
      ref={setNodeRef}
      role="listitem"
      style={{ transform: CSS.Transform.toString(transform), transition, opacity: isDragging ? 0.7 : 1 }}
    >
      {render(id, handle)}
    </div>
  );
}

/** A list one can put in another order by dragging, or by keyboard: focus the handle, space, arrows, space. */
export function SortableList({ ids, labels, onMove, render }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const end = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  const said = (id: unknown) => labels[ids.indexOf(String(id))];
  const placeOf = (id: unknown) => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${said(active.id)} is picked up.`,
    onDragOver: ({ active, over }) => (over ? `${said(active.id)} moves to ${placeOf(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) => `${said(active.id)} is put down at ${placeOf((over ?? active).id)}.`,
    onDragCancel: ({ active }) => `${said(active.id)} stays where it was.`,
  };
  const draggable = 'Space picks it up, the arrow keys move it, space puts it down, escape leaves it where it was.';
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={end}
      accessibility={{ announcements, screenReaderInstructions: { draggable } }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <div role="list" style={{ display: 'flex', flexDirection: 'column', gap: 12 }}>
          {ids.map((id, i) => (
            <Item key={id} id={id} label={labels[i]} render={render} />
          ))}
        </div>
      </SortableContext>
    </DndContext>
  );
}
