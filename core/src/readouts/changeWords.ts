import type { BaseReadout } from '../board/choices';
import { formatDistance, formatValue } from '../format/format';
import { changeOf } from '../indicators/targetOfWindow';
import type { ReadoutValue } from './readoutValues';

const EARLIER: ReadonlySet<string> = new Set(['before', 'last year']);

/** The word for the reference of a change, to follow its value. */
export function baseWords({ compare, reference }: Pick<BaseReadout, 'compare' | 'reference'>): string {
  if (reference)
    return { fixed: 'as reference', baseline: 'as usual', measure: 'as reference' }[reference.kind];
  return compare === 'lastYear' ? 'last year' : 'before';
}

/** What drawings compare with, as a caption. */
export const referenceWindowName = ({ compare }: Pick<BaseReadout, 'compare'>): string =>
  compare === 'lastYear' ? 'the same last year' : 'the window before';

/**
 * Change against the reference: "up 3.1 % on 1,204 kg before"; without a percentage where that means nothing.
 */
export function changeWords(
  { value, previous, unit, partial }: Pick<ReadoutValue, 'value' | 'previous' | 'unit' | 'partial'>,
  decimals: number,
  when = 'before',
): string {
  const change = changeOf(value, previous);
  if (!change) return 'nothing to compare with';
  const whole = partial && EARLIER.has(when) ? `by this time ${when}` : when;
  const base = `${formatValue(previous, unit, decimals)} ${whole}`;
  const { by, percent } = change;
  if (by === 0) return `the same as ${base}`;
  const share = percent === null ? '' : ` (${formatDistance(Math.abs(percent), 1)} %)`;
  const size = formatDistance(Math.abs(by), decimals);
  return size === 'just'
    ? `just ${by > 0 ? 'above' : 'below'} ${base}`
    : `${by > 0 ? 'up' : 'down'} ${size}${share} on ${base}`;
}
