import { BUCKET_WORDS, formatGraduation } from '@vivid-beacon/core';
import type { TrendData } from '../boards/useTrendSeries';

/** What stands under a trend: its units, one value for what, the targets, and what it is compared with. */
export function trendCaption({ series, shown, bucket, reference, asked, aligned }: TrendData): string {
  const { until } = series![0].answer;
  const { readout } = shown;
  const units = [...new Set(series!.map(({ answer }) => answer.unit))].slice(0, 2);
  const named = units.filter((unit) => unit !== '');
  const kind =
    until === null
      ? 'samples, spikes kept'
      : `${readout.cumulative ? 'running total, ' : ''}one value for each ${BUCKET_WORDS[bucket ?? 'hour']}`;
  const judged = readout.cumulative || readout.mark === 'stacked' ? [] : [readout.band, readout.secondBand];
  const targets = judged.flatMap((band, i) =>
    i < units.length && typeof band?.target === 'number'
      ? [`${formatGraduation(band.target)}${units.length > 1 ? ` ${units[i]}` : ''}`]
      : [],
  );
  const target = targets.length > 0 ? `, target ${targets.join(' and ')} at the triangle` : '';
  const compared = reference
    ? `, dashed: ${reference.name === 'before' ? 'the window before' : 'the same last year'}`
    : '';
  const counted = aligned ? `, by days since ${asked.align!.attribute}` : '';
  return `${named.length > 0 ? `in ${named.join(' and ')}, ` : ''}${kind}${target}${counted}${compared}`;
}
