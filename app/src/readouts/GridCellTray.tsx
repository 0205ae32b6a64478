import type { ComponentType } from 'react';
import { formatNumber, formatValue, formatWindow, LEVEL_WORDS } from '@vivid-beacon/core';
import {
  isThin,
  trendOfCell,
  type HeatCell,
  type GridData,
  type ReadData,
} from '@vivid-beacon/core/src/boards';
import { usePathsOf } from '../boards/usePathsOf';
import { Fact } from '../components/Fact';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { ReadoutHost } from './ReadoutHost';
import { TrendReadout } from './TrendReadout';
import type { DrawProps } from './drawProps';

interface GridCellTrayProps {
  readonly data: GridData;
  readonly cell: HeatCell;
  readonly title: string;
  readonly onClose: () => void;
}

const DRAW_TREND = TrendReadout as ComponentType<DrawProps<ReadData>>;

/** What a cell of a heat grid holds: its value, how much data it is made of, and the course behind it. */
export function GridCellTray({ data, cell, title, onClose }: GridCellTrayProps) {
  const { unit, decimals, band, zone, now } = data;
  const paths = usePathsOf(data.readout, cell.group);
  const trend = paths && trendOfCell(data, cell, paths);
  const level = isThin(cell) ? 'not judged, too little data' : LEVEL_WORDS[cell.level];
  return (
    <Tray title={`${title}: ${cell.name}`} open onClose={onClose}>
      <Fact
        name="Value"
        text={`${formatValue(cell.value, unit, decimals)}${data.isMeanHour ? ', mean of an hour with data' : ''}`}
      />
      {(band !== null || cell.value === null) && <Fact name="Level" text={level} />}
      <Fact
        name="Coverage"
        text={`${formatNumber(cell.coverage * 100, 0)} % of ${formatNumber(cell.hours, 1)} h`}
      />
      <Fact name="Samples" text={formatNumber(cell.samples, 0)} />
      <Fact name="From" text={`${formatWindow(cell.time.start, cell.time.end, zone, now)} (${zone})`} />
      {cell.working < 1 && (
        <Fact
          name="Working"
          text={
            cell.working === 0
              ? 'outside working hours'
              : `${formatNumber(cell.working * 100, 0)} % working time`
          }
        />
      )}
      {trend ? (
        <ReadoutHost readout={trend} title={cell.name} draw={DRAW_TREND} />
      ) : (
        <Words as="second">Its assets cannot be told apart by a scope, so it has no trend of its own.</Words>
      )}
    </Tray>
  );
}
