import { useMemo } from 'react';
import type { LevelSpan, StretchRemark, TargetBand, TrendAnswer } from '@vivid-beacon/core';
import { oneSeries, PLAIN_TREND } from '@vivid-beacon/core/src/pictures';
import { Trend, type TrendProps } from './Trend';

interface SingleTrendProps extends Omit<TrendProps, 'options'> {
  readonly answer: TrendAnswer;
  readonly band: TargetBand | null;
  readonly decimals: number;
  /** Breaches marked above the plot and on its axis. */
  readonly spans?: readonly LevelSpan[];
  readonly remarks?: readonly StretchRemark[];
}

const NO_SPANS: readonly LevelSpan[] = [];
const NO_REMARKS: readonly StretchRemark[] = [];

/** A trend of one line. */
export function SingleTrend({
  answer,
  band,
  decimals,
  spans = NO_SPANS,
  remarks = NO_REMARKS,
  ...props
}: SingleTrendProps) {
  const { name } = props;
  const options = useMemo(
    () => ({
      ...PLAIN_TREND,
      series: oneSeries(answer, name),
      band,
      decimals,
      along: { spans, remarks, alarms: [], flags: [] },
    }),
    [answer, name, band, decimals, spans, remarks],
  );
  return <Trend {...props} options={options} />;
}
