import type { DraggableAttributes, DraggableSyntheticListeners } from '@dnd-kit/core';
import { GripIcon } from '../../components/icons';
import { usePalette } from '../../theme/useTheme';

interface DragHandleProps {
  readonly name: string;
  /** Moves it by one place, towards the start or the end. */
  readonly onMove: (step: -1 | 1) => void;
  readonly handleRef: (node: HTMLElement | null) => void;
  readonly attributes: DraggableAttributes;
  readonly listeners: DraggableSyntheticListeners;
}

const STEPS: Readonly<Record<string, -1 | 1>> = {
  ArrowLeft: -1,
  ArrowUp: -1,
  ArrowRight: 1,
  ArrowDown: 1,
};

/** What a readout is dragged by; with the keyboard the arrows move it by one place, and its name says which. */
export function DragHandle({ name, onMove, handleRef, attributes, listeners }: DragHandleProps) {
  const palette = usePalette();
  return (
    <button
      ref={handleRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={name}
      aria-keyshortcuts="ArrowLeft ArrowRight"
      onKeyDown={(event) => {
        const step = STEPS[event.key];
        if (!step) return;
        onMove(step);
        event.preventDefault();
        event.stopPropagation();
      }}
      style={{
        width: 44,
        height: 44,
        border: 0,
        background: 'transparent',
        cursor: 'grab',
        touchAction: 'none',
        padding: 0,
      }}
    >
      <GripIcon size={20} color={palette.ink} strokeWidth={1.75} />
    </button>
  );
}
