import { useState } from 'react';
import type { IndicatorDefinition, IndicatorPast, JudgedPeriod } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { isThin } from '@vivid-beacon/core/src/readouts/stateWords';
import { ReadingLamp } from '../../components/ReadingLamp';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { shownValue } from './indicatorWords';
import { periodName } from './periodWords';

const SHOWN_FIRST = 4;

interface PastListProps {
  readonly past: IndicatorPast;
  readonly unit: string;
  readonly format: Pick<IndicatorDefinition, 'decimals' | 'display'>;
  /** The definition in force: an earlier one that judged is named. */
  readonly version: number;
  /** Opens one; undefined = they are only read. */
  readonly onOpen?: (period: JudgedPeriod) => void;
}

/** The same periods as rows, newest first. */
export function PastList({ past, unit, format, version, onOpen }: PastListProps) {
  const palette = usePalette();
  const now = useNow(60_000);
  const [all, setAll] = useState(false);
  const first = past.periods.findIndex(({ value }) => value !== null);
  const newest = first < 0 ? [] : past.periods.slice(first).reverse();
  const shown = all ? newest : newest.slice(0, SHOWN_FIRST);
  return (
    <>
      {shown.map((period, i) => (
        <Row
          key={period.start}
          title={period.end > now ? `${periodName(period, past)}, unfinished` : periodName(period, past)}
          second={secondLine(period, unit, format, version)}
          left={<ReadingLamp reading={period} judged={period.level !== 'nodata'} />}
          right={
            <Words as="bodyStrong" colour={isThin(period) ? palette.ink3 : undefined}>
              {shownValue(period.value, unit, format)}
            </Words>
          }
          onPress={onOpen && (() => onOpen(period))}
          last={i === shown.length - 1}
        />
      ))}
      {newest.length > SHOWN_FIRST && (
        <Button
          variant="quiet"
          label={all ? 'Show the newest only' : `Show all ${newest.length}`}
          onPress={() => setAll(!all)}
        />
      )}
    </>
  );
}

function secondLine(
  { target, coverage, version }: JudgedPeriod,
  unit: string,
  format: PastListProps['format'],
  inForce: number,
): string {
  return [
    target === null ? 'no target' : `target ${shownValue(target, unit, format)}`,
    coverage < 0.995 ? `coverage ${Math.round(coverage * 100)} %` : '',
    version === inForce ? '' : `judged by version ${version}`,
  ]
    .filter(Boolean)
    .join(', ');
}
