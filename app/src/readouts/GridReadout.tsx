import { useMemo, useState } from 'react';
import { gridScene, type HeatCell, type GridData } from '@vivid-beacon/core/src/boards';
import { PointedScene } from '../charts/PointedScene';
import type { DrawProps } from './drawProps';
import { GridCellTray } from './GridCellTray';

/** A grid of tones; each cell opens as a trend. */
export function GridReadout({ data, title, width }: DrawProps<GridData>) {
  const [open, setOpen] = useState<HeatCell | null>(null);
  const scene = useMemo(() => (width > 0 ? gridScene(data, width) : null), [data, width]);
  if (!scene) return null;
  const cells = data.grids.flatMap(({ rows }) => rows.flatMap((row) => row.cells));
  return (
    <>
      <PointedScene
        scene={scene}
        name={title}
        parts
        onPress={(key) => setOpen(cells.find((cell) => cell.key === key) ?? null)}
      />
      {open && <GridCellTray data={data} cell={open} title={title} onClose={() => setOpen(null)} />}
    </>
  );
}
