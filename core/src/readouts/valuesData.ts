import { scaleEnds } from '../bands/scaleEnds';
import type { BaseReadout } from '../board/choices';
import type { QueryAnswer } from '../domain/query';
import { decimalsFor } from '../format/format';
import { scaledForDisplay } from './scaledForDisplay';
import { readoutValues, readoutQuery, type ReadoutValue } from './readoutValues';
import type { Problem, ReadData, ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';

/** The values of a readout: one per measure or per group; at least one. */
export interface ValuesData<Choices = object> extends ReadData {
  readonly values: readonly ReadoutValue[];
  /** Band and ends scaled for display: in units, thousands or millions. */
  readonly readout: BaseReadout & Choices;
}

export const NOTHING_IN_SCOPE: Problem = {
  problem: { title: 'Nothing in this scope', text: 'No metric of the readout lies in it.' },
};

/** The single request of a form that shows values of its window; null while a metric is not loaded. */
export function valuesRequests({ metrics, ...shown }: ReadoutInputs): readonly ReadingRequest[] | null {
  if (shown.readout.measures.length === 0) return [];
  const ask = readoutQuery(shown, metrics);
  return ask && [{ kind: 'query', ask }];
}

/** Turns the answer into values. */
export function valuesData<Choices>(
  { readout, metrics }: ReadoutInputs<Choices>,
  [answer]: ReadingAnswers,
): ValuesData<Choices> | Problem {
  if (!answer) return NOTHING_IN_SCOPE;
  const { window, zone, now } = answer as QueryAnswer;
  const shown = scaledForDisplay(readout, readoutValues(answer as QueryAnswer, readout, metrics));
  if (shown.values.length === 0) return NOTHING_IN_SCOPE;
  return {
    ...shown,
    decimals: decimalsOf(shown.readout, shown.values),
    window,
    zone,
    now,
  };
}

/** As chosen, or enough for about three significant figures of the scale. */
function decimalsOf(readout: BaseReadout, values: readonly Pick<ReadoutValue, 'value'>[]): number {
  if (readout.decimals !== null) return readout.decimals;
  const [low, high] = scaleEnds(
    readout.band,
    values.map(({ value }) => value ?? NaN),
  );
  return decimalsFor(low, high);
}
