import type { ComponentProps } from 'react';
import type { TrendAnswer } from '@vivid-beacon/core';
import { oneSeries } from '@vivid-beacon/core/src/pictures';
import { Trend } from './Trend';

interface SingleTrendProps extends Omit<ComponentProps<typeof Trend>, 'series'> {
  readonly answer: TrendAnswer;
}

/** A trend of one line. */
export function SingleTrend({ answer, ...props }: SingleTrendProps) {
  return <Trend {...props} series={oneSeries(answer, props.name)} />;
}
