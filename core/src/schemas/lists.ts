import * as yup from 'yup';
import { FEED_STATES } from '../feeds/feedHealth';
import { METRIC_KINDS, METRIC_ORIGINS } from '../domain/metric';
import { idList, idText } from './parts';

/** More than a page of any screen. */
export const MOST_ITEMS = 500;
const USUAL_ITEMS = 50;
const MOST_WORDS = 8;

/** Which part of a long list is wanted. */
export const pageFields = () => ({
  offset: yup.number().integer().min(0).max(1_000_000).default(0),
  limit: yup.number().integer().min(0).max(MOST_ITEMS).default(USUAL_ITEMS),
});

/** Words that are looked for. */
export const searchText = () => yup.string().max(200).optional();

/** The words of a search, as many as are looked at. */
export function wordsOf(search: string | undefined): string[] {
  return (search ?? '').split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
}

export const metricListSchema = yup
  .object({
    ids: idList(MOST_ITEMS),
    assetId: idText().optional(),
    under: idText().optional(),
    search: searchText(),
    name: yup.string().max(200).optional(),
    unit: yup.string().max(100).optional(),
    kind: yup.string().oneOf(METRIC_KINDS).optional(),
    origin: yup.string().oneOf(METRIC_ORIGINS).optional(),
    state: yup.string().oneOf(FEED_STATES).optional(),
    /** Only feeds, those that need a look first; then by search and state alone. */
    feeds: yup.boolean().default(false),
    ...pageFields(),
  })
  .noUnknown();

export const assetListSchema = yup
  .object({
    ids: idList(MOST_ITEMS),
    /** "none" = plants. */
    parentId: yup
      .string()
      .matches(/^(none|[1-9]\d{0,17})$/, '${path} is the id of an asset, or none')
      .optional(),
    under: idText().optional(),
    search: searchText(),
    /** Words that stand anywhere in the names from the plant down. */
    title: searchText(),
    /** With what hangs on each. */
    facts: yup.boolean().default(false),
    ...pageFields(),
  })
  .noUnknown();
