import { BUCKET_WORDS, formatGraduation, type Readout } from '@vivid-beacon/core';
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
  const target = targetWords(readout, units);
  const compared = reference
    ? `, dashed: ${reference.name === 'before' ? 'the window before' : 'the same last year'}`
    : '';
  const counted = aligned ? `, by days since ${asked.align!.attribute}` : '';
  return `${named.length > 0 ? `in ${named.join(' and ')}, ` : ''}${kind}${target}${counted}${compared}`;
}

/** The targets with where they are drawn; one beyond the ends of its scale is not. */
function targetWords(
  { cumulative, mark, band, secondBand, scale }: Readout,
  units: readonly string[],
): string {
  if (cumulative || mark === 'stacked') return '';
  const words = [band, secondBand].flatMap((each, i) => {
    if (i >= units.length || typeof each?.target !== 'number') return [];
    // Ends are those of the first unit.
    const beyond = i === 0 && scale.ends && (each.target < scale.ends[0] || each.target > scale.ends[1]);
    const text = `${formatGraduation(each.target)}${units.length > 1 ? ` ${units[i]}` : ''}`;
    return [beyond ? `${text} beyond the scale` : text];
  });
  if (words.length === 0) return '';
  const drawn = words.some((text) => !text.endsWith('beyond the scale'));
  return `, target ${words.join(' and ')}${drawn ? ' at the triangle' : ''}`;
}
