import { SUMMARIES_OF_KIND, SUMMARY_WORDS, type Metric, type Summary } from '@vivid-beacon/core';

/** The summaries that make sense for a metric, with their labels. */
export const summaryOptions = ({
  kind,
}: Pick<Metric, 'kind'>): { readonly value: Summary; readonly label: string }[] =>
  SUMMARIES_OF_KIND[kind].map((value) => {
    const words = value === 'mean' && kind === 'level' ? 'time-weighted mean' : SUMMARY_WORDS[value];
    return { value, label: words[0].toUpperCase() + words.slice(1) };
  });
