import type { DraggableAttributes, DraggableSyntheticListeners } from '@dnd-kit/core';
import { GripIcon } from '../../components/icons';
import { usePalette } from '../../theme/useTheme';

interface DragHandleProps {
  readonly name: string;
  readonly handleRef: (node: HTMLElement | null) => void;
  readonly attributes: DraggableAttributes;
  readonly listeners: DraggableSyntheticListeners;
}

/** What a readout is dragged by; with the keyboard Space picks it up and puts it down. */
export function DragHandle({ name, handleRef, attributes, listeners }: DragHandleProps) {
  const palette = usePalette();
  return (
    <button
      ref={handleRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={name}
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
