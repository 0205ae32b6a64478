import { perName, type IndicatorDefinition, type Person } from '@vivid-beacon/core';
import type { SentencePart } from '../../components/Sentence';
import type { IndicatorSlot } from './indicatorDraft';
import {
  formatWords,
  judgeWords,
  measureWords,
  referenceWords,
  targetWords,
  whenWords,
  type MetricOf,
} from './indicatorWords';

/** A definition as a sentence of which every part can be tapped. */
export function indicatorSentence(
  definition: IndicatorDefinition | null,
  unit: string,
  metricOf: MetricOf,
  people: readonly Person[],
): SentencePart[] {
  const words = (text: string): SentencePart => ({ kind: 'words', text });
  const slot = (key: IndicatorSlot, text: string): SentencePart => ({ kind: 'slot', key, text });
  if (!definition) return [words('Judge'), slot('measure', 'a metric')];
  const { measure, judge, target, reference, decimals } = definition;
  const owner = people.find(({ id }) => id === definition.ownerId);
  return [
    words('Judge'),
    slot('measure', measureWords({ measure: { ...measure, per: null, perAttribute: null } }, metricOf)),
    measure.per
      ? slot(
          'per',
          `per ${measureWords({ measure: { ...measure.per, per: null } }, metricOf).replace(/^the /, '')}`,
        )
      : slot('per', measure.perAttribute == null ? 'on its own' : `per ${perName(measure.perAttribute)}`),
    words('over'),
    slot('window', whenWords(definition)),
    slot('judge', judgeWords(judge, unit, decimals)),
    words('The target is'),
    slot('target', targetWords(target, unit, definition)),
    words('Compare it with'),
    slot('reference', referenceWords(reference, unit, definition)),
    words('in'),
    slot('format', formatWords(definition)),
    slot('owner', owner?.name ?? 'Nobody'),
    words('owns it'),
  ];
}
