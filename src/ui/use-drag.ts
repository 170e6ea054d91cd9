'use client';
/**
 * Dragging with a pointer: where it goes down is a change by itself, each move joins it. Spread what comes back on the
 * element.
 */
import { type PointerEvent, useRef } from 'react';

export function useDrag<E extends Element>(
  onMove: (event: PointerEvent<E>, joins: boolean) => void,
  onEnd?: () => void
) {
  const dragging = useRef(false);
  const end = () => {
    if (dragging.current) onEnd?.();
    dragging.current = false;
  };
  return {
    onPointerDown(event: PointerEvent<E>) {
      event.currentTarget.setPointerCapture(event.pointerId);
      dragging.current = true;
      onMove(event, false);
    },
    onPointerMove(event: PointerEvent<E>) {
      if (dragging.current) onMove(event, true);
    },
    onPointerUp: end,
    onPointerCancel: end
  };
}
