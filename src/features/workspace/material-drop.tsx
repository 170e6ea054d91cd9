'use client';
/** Materials dragged from the library onto a part of the model; the swatch goes along with the pointer. */
import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  PointerSensor,
  pointerWithin,
  useDroppable,
  useSensor,
  useSensors
} from '@dnd-kit/core';
import { type ReactNode, type RefObject, useState } from 'react';
import type { DrawnModel } from './view';

interface Props {
  drawn: RefObject<DrawnModel | null>;
  /** A material of the library by its key, on a material of the file and the part that was under the pointer. */
  onDrop: (key: string, material: string, part: string) => void;
  children: ReactNode;
}

const STAGE = 'stage';
// less is a press
const DRAG_PX = 6;

export function MaterialDrag({ drawn, onDrop, children }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PX } }));
  const [dragged, setDragged] = useState<string | null>(null);
  const keyOf = (data: Record<string, unknown> | undefined): string | null =>
    typeof data?.material === 'string' ? data.material : null;
  const end = ({ active, over, activatorEvent, delta }: DragEndEvent) => {
    setDragged(null);
    const key = keyOf(active.data.current);
    const rect = over?.rect;
    if (!key || over?.id !== STAGE || !rect) return;
    const from = activatorEvent as PointerEvent;
    const found = drawn.current?.pickMaterial(
      (from.clientX + delta.x - rect.left) / rect.width,
      (from.clientY + delta.y - rect.top) / rect.height
    );
    if (found) onDrop(key, found.material, found.part);
  };
  return (
    <DndContext
      id="materials"
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(keyOf(active.data.current))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={end}
    >
      {children}
      <DragOverlay dropAnimation={null}>
        {dragged ? <img src={`/api/materials/${dragged}`} alt="" width={84} height={63} /> : null}
      </DragOverlay>
    </DndContext>
  );
}

/** Lies over the picture on the stage and takes what is dropped; never in the way of a pointer. */
export function DropOnStage() {
  const { setNodeRef, isOver } = useDroppable({ id: STAGE });
  return <div ref={setNodeRef} className={`droponto${isOver ? ' over' : ''}`} aria-hidden />;
}
