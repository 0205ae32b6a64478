import {
  DndContext,
  PointerSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Readout } from '@vivid-beacon/core';
import { gridRows, PHONE_COLUMNS, ROW_HEIGHT, WIDE_COLUMNS, type GridCell } from '../../boards/boardGrid';
import { ReadoutView, useReadoutWords } from '../../readouts/ReadoutView';
import { usePalette } from '../../theme/useTheme';
import { DragHandle } from './DragHandle';
import { ReadoutTools, type ReadoutActions } from './ReadoutTools';
import { usePlaced } from './usePlaced';

interface ReadoutGridProps {
  readonly readouts: readonly Readout[];
  readonly wide: boolean;
  readonly editing: boolean;
  /** Id of the readout that was just placed: it is brought into view and marked for a moment. */
  readonly placed: string | null;
  /** One readout was dropped on another. */
  readonly onDrop: (id: string, onto: string) => void;
  readonly actions: ReadoutActions;
}

/** The readouts of a board in rows; while it is arranged each can be dragged by mouse or finger, or moved by keys, one place a press. */
export function ReadoutGrid({ readouts, wide, editing, placed, onDrop, actions }: ReadoutGridProps) {
  const palette = usePalette();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 8 } }),
  );
  const drop = ({ active, over }: DragEndEvent): void => {
    if (over && over.id !== active.id) onDrop(String(active.id), String(over.id));
  };
  const rows = gridRows(readouts, wide).map((cells) => (
    <View key={cells[0].readout.id} style={[styles.row, { borderBottomColor: palette.line }]}>
      {cells.map((cell, i) => (
        <Cell
          key={cell.readout.id}
          cell={cell}
          first={i === 0}
          wide={wide}
          placed={cell.readout.id === placed}
        >
          {editing ? (
            <Arranged
              readout={cell.readout}
              place={readouts.indexOf(cell.readout) + 1}
              count={readouts.length}
              wide={wide}
              actions={actions}
            />
          ) : (
            <ReadoutView readout={cell.readout} />
          )}
        </Cell>
      ))}
    </View>
  ));
  return (
    <View style={[styles.grid, { borderTopColor: palette.ink }]}>
      {editing ? (
        <DndContext sensors={sensors} onDragEnd={drop}>
          {rows}
        </DndContext>
      ) : (
        rows
      )}
    </View>
  );
}

function Cell({
  cell: { readout, span },
  first,
  wide,
  placed,
  children,
}: {
  readonly cell: GridCell;
  readonly first: boolean;
  readonly wide: boolean;
  readonly placed: boolean;
  readonly children: ReactNode;
}) {
  const palette = usePalette();
  const [ref, marked] = usePlaced(placed);
  return (
    <View
      ref={ref}
      style={[
        styles.cell,
        marked && { outlineWidth: 3, outlineColor: palette.sea },
        { flexBasis: `${(100 * span) / (wide ? WIDE_COLUMNS : PHONE_COLUMNS)}%` },
        wide && readout.size !== null && { minHeight: readout.size.rows * ROW_HEIGHT },
        !first && { borderLeftWidth: 1, borderLeftColor: palette.line },
      ]}
    >
      {children}
    </View>
  );
}

/** A readout with its handle and its tools, as a place that others can be dropped on. */
function Arranged({
  readout,
  place,
  count,
  wide,
  actions,
}: {
  readonly readout: Readout;
  /** 1 to `count`. */
  readonly place: number;
  readonly count: number;
  readonly wide: boolean;
  readonly actions: ReadoutActions;
}) {
  const palette = usePalette();
  const { title } = useReadoutWords(readout);
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: readout.id });
  const {
    setNodeRef: dragRef,
    setActivatorNodeRef,
    attributes,
    listeners,
    transform,
    isDragging,
  } = useDraggable({ id: readout.id });
  return (
    <View
      ref={(node) => {
        dropRef(node as unknown as HTMLElement | null);
        dragRef(node as unknown as HTMLElement | null);
      }}
      style={[
        styles.arranged,
        isOver && !isDragging && { outlineWidth: 3, outlineColor: palette.sea },
        isDragging && {
          zIndex: 5,
          opacity: 0.8,
          backgroundColor: palette.sheet,
          transform: [{ translateX: transform?.x ?? 0 }, { translateY: transform?.y ?? 0 }],
        },
      ]}
    >
      <View style={[styles.tools, { backgroundColor: palette.well }]}>
        <DragHandle
          name={`Drag ${title}, place ${place} of ${count}`}
          onMove={(step) => actions.move(readout, step)}
          handleRef={setActivatorNodeRef}
          attributes={attributes}
          listeners={listeners}
        />
        <ReadoutTools title={title} readout={readout} wide={wide} actions={actions} />
      </View>
      <View pointerEvents="none" style={styles.still}>
        <ReadoutView readout={readout} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  grid: { borderTopWidth: 1.5 },
  row: { flexDirection: 'row', borderBottomWidth: 1 },
  cell: {
    flexGrow: 0,
    flexShrink: 1,
    minWidth: 0,
    outlineStyle: 'solid',
    outlineWidth: 0,
    outlineOffset: -3,
  },
  arranged: { flex: 1, minWidth: 0, outlineStyle: 'solid', outlineWidth: 0, outlineOffset: -3 },
  tools: { flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap' },
  still: { flex: 1, minWidth: 0 },
});
