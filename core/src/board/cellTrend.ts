import { addsUp } from '../domain/measure';
import type { HeatCell, GridData } from '../readouts/gridData';
import { scopeOfGroup } from '../scope/groupScope';
import type { HoursFilter } from '../time/hoursFilter';
import { localWindow } from '../time/localWindow';
import { makeReadout, type Readout } from './board';
import { joinHours, type PathOf } from './joinScopes';

/**
 * What a cell of a heat grid holds, as a trend: its stretch of time, or the hours of the window that fall into it, one value
 * for each week or day, so that no time between them looks like missing data.
 * Null where no scope says which assets its group has.
 */
export function trendOfCell(
  { readout, window, zone }: GridData,
  cell: HeatCell,
  pathOf: PathOf,
): Readout | null {
  const { layout, groupBy } = readout;
  const [measure] = readout.measures;
  const scope =
    groupBy && cell.group ? scopeOfGroup(groupBy, cell.group, readout.scope, pathOf) : readout.scope;
  if (groupBy && scope === null) return null;
  const again = layout === 'weekdayHour' || layout === 'groupHour';
  return makeReadout('cell', 'trend', {
    measures: [measure],
    title: cell.name,
    window: localWindow(again ? window : cell.time, zone),
    hours: again ? joinHours(readout.hours, hoursOfCell(readout.layout, cell)) : readout.hours,
    bucket: PERIODS[layout],
    groupBy: groupBy && { kind: 'all' },
    scope,
    band: readout.band,
    mark: addsUp(measure) && (again || layout === 'monthDay') ? 'columns' : 'line',
    display: readout.display,
    decimals: readout.decimals,
  });
}

/** The periods of which a cell holds one hour each, or that lie in it; null = samples. */
const PERIODS = { weekdayHour: 'week', groupHour: 'day', monthDay: 'hour', dateHour: null } as const;

/** The hours that come again in a cell. */
function hoursOfCell(layout: GridData['readout']['layout'], { column, weekday }: HeatCell): HoursFilter {
  const two = (hour: number): string => `${String(hour).padStart(2, '0')}:00`;
  const clock: HoursFilter = { kind: 'clock', from: two(column), to: two((column + 1) % 24) };
  return layout === 'weekdayHour' && weekday !== null
    ? { kind: 'all', of: [{ kind: 'weekdays', days: [weekday] }, clock] }
    : clock;
}
