import { BUCKET_WORDS, type Bucket } from '@vivid-beacon/core';

/** What the time on each level was counted from: "by quarter-hour means". */
export function levelsByWords(by: Bucket | null): string {
  if (by === null) return 'sample by sample';
  return by === 'quarterHour' ? 'by quarter-hour means' : `by the ${BUCKET_WORDS[by]}`;
}
