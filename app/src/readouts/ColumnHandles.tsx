import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';

/** A column whose width can be changed. */
export interface ResizableColumn {
  readonly key: string;
  readonly name: string;
  /** Where it ends and how wide it is, px. */
  readonly end: number;
  readonly width: number;
}

interface ColumnHandlesProps {
  readonly columns: readonly ResizableColumn[];
  readonly height: number;
  /** While it is dragged. */
  readonly onDrag: (key: string, width: number) => void;
  /** When it is let go; null = as it fits. */
  readonly onSet: (key: string, width: number | null) => void;
}

/** Room for a pointer or a finger at the end of a column, and a step by keys, px. */
const REACH = 24;
const STEP = 8;

/** At the end of each head a handle: dragged, moved by the arrow keys, and let go by Delete. */
export function ColumnHandles({ columns, height, onDrag, onSet }: ColumnHandlesProps) {
  const palette = usePalette();
  const [held, setHeld] = useState<Held | null>(null);
  const last = columns.at(-1)?.end;
  return columns.map(({ key, name, end, width }) => {
    const widthAt = (x: number): number => held!.width + x - held!.x;
    const isHeld = held?.key === key;
    const events = {
      onPointerDown: (event: PointerEvent) => {
        (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
        event.stopPropagation();
        setHeld({ key, x: event.clientX, width });
      },
      onPointerMove: (event: PointerEvent) => {
        if (isHeld) onDrag(key, widthAt(event.clientX));
      },
      onPointerUp: (event: PointerEvent) => {
        if (isHeld) onSet(key, widthAt(event.clientX));
        setHeld(null);
      },
      onPointerCancel: () => setHeld(null),
      onClick: (event: MouseEvent) => event.stopPropagation(),
      onDoubleClick: () => onSet(key, null),
      onKeyDown: (event: KeyboardEvent) => {
        const to = { ArrowLeft: width - STEP, ArrowRight: width + STEP, Delete: null }[event.key];
        if (to === undefined) return;
        onSet(key, to);
        event.preventDefault();
        event.stopPropagation();
      },
    };
    return (
      <View
        key={key}
        {...(events as object)}
        role="separator"
        tabIndex={0}
        aria-label={`Width of ${name}. Left and right change it, Delete lets it go`}
        aria-orientation="vertical"
        aria-valuenow={Math.round(width)}
        aria-valuetext={`${Math.round(width)} pixels`}
        style={[
          styles.handle,
          // The last one stays within, so that nothing scrolls for its sake.
          end === last ? styles.lastHandle : null,
          { left: end === last ? end - REACH : end - REACH / 2, height },
        ]}
      >
        <View style={[styles.line, { backgroundColor: isHeld ? palette.sea : palette.line2 }]} />
      </View>
    );
  });
}

interface Held {
  readonly key: string;
  /** Where the pointer took hold of it, and how wide it was, px. */
  readonly x: number;
  readonly width: number;
}

const styles = StyleSheet.create({
  handle: {
    position: 'absolute',
    top: 0,
    width: REACH,
    alignItems: 'center',
    justifyContent: 'flex-end',
    cursor: 'col-resize' as 'pointer',
    touchAction: 'none',
    zIndex: 2,
  } as object,
  lastHandle: { alignItems: 'flex-end' },
  line: { width: 2, height: 14, marginBottom: 6, borderRadius: 1 },
});
