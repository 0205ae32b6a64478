import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import type { FileScan } from './scanFile';

/** Headings that any two files may share. */
const GENERIC =
  /^(time|date|datetime|timestamp|ts|t|at|when|value|values|v|y|x|name|tag|metric|series|channel|unit|id|key|zeit|datum|wert|einheit|valor|valeur|column \d+)$/i;

/**
 * What files of one shape share: headings and units in the same order, with the same separator. Headings such
 * as "time" and "value" say nothing; then the names of the series count. @returns null where nothing in the
 * file distinguishes its shape.
 */
export function shapeOf({ recognised: { layout, columns }, feeds }: FileScan): string | null {
  const headings = columns.map(({ heading, unit }) => [heading, unit]);
  const telling = columns.some(({ heading }) => !GENERIC.test(heading.trim()));
  const names = [...new Set(feeds.map(({ name }) => name))].filter((name) => name !== '');
  if (!telling && names.length === 0) return null;
  const parts = [layout.separator, headings, telling ? null : names.sort()];
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(parts))));
}
