import * as yup from 'yup';
import { FEED_STATES } from '../feeds/feedHealth';
import { METRIC_KINDS, METRIC_ORIGINS } from '../domain/metric';
import { idList, idText } from './parts';

/** More than a page of any screen. */
export const MAX_ITEMS = 500;
const DEFAULT_ITEMS = 50;
const MAX_WORDS = 8;

/** Which part of a long list is wanted. */
export const pageFields = () => ({
  offset: yup.number().integer().min(0).max(1_000_000).default(0),
  limit: yup.number().integer().min(0).max(MAX_ITEMS).default(DEFAULT_ITEMS),
});

/** Words that are looked for. */
export const searchText = () => yup.string().max(200).optional();

/** The words of a search, up to a maximum. */
export function searchWords(search: string | undefined): string[] {
  return (search ?? '').split(/\s+/).filter(Boolean).slice(0, MAX_WORDS);
}

export const metricListSchema = yup
  .object({
    ids: idList(MAX_ITEMS),
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
    ids: idList(MAX_ITEMS),
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

/** Active alarms, or that are over. */
export const ALARM_LISTS = ['standing', 'over'] as const;
/** Flags that wait for a person, that they handed out, or of everybody. */
export const FLAG_LISTS = ['mine', 'given', 'all'] as const;

export const alarmListSchema = yup
  .object({
    list: yup.string().oneOf(ALARM_LISTS).default('standing'),
    ruleId: idText().optional(),
    plantId: idText().optional(),
    /** Words that stand anywhere in the name of the rule or in the names of the metric from the plant down. */
    search: searchText(),
    ...pageFields(),
  })
  .noUnknown();

/** More different metrics below an asset than anybody chooses from. */
export const MAX_ALIKE = 1000;

/** Most names of a file in one lookup. */
export const MAX_NAMES = 1200;

/** Assets named in a file. */
export const assetNamesSchema = yup
  .object({ names: yup.array(yup.string().max(200).required()).min(1).max(MAX_NAMES).required() })
  .noUnknown();

/** What a file says of a metric, for it to be found elsewhere; the asset as "Plant / Asset", or the plant itself. */
export const namedMetricFields = () => ({
  key: yup.string().max(400).required(),
  name: yup.string().max(200).required(),
  asset: yup.string().max(400).required(),
  unit: yup.string().max(40).defined(),
});

/** Metrics that a file speaks of: by key, or by name, unit and asset ("Plant / Asset", or the plant itself). */
export const metricNamesSchema = yup
  .object({
    metrics: yup
      .array(yup.object(namedMetricFields()).noUnknown().required())
      .min(1)
      .max(MAX_NAMES)
      .required(),
  })
  .noUnknown();

export const ruleListSchema = yup
  .object({
    /** Words that stand anywhere in the name of the rule or in the names of its metric from the plant down. */
    search: searchText(),
    ...pageFields(),
  })
  .noUnknown();

export const flagListSchema = yup
  .object({
    state: yup
      .string()
      .oneOf(['open', 'closed'] as const)
      .default('open'),
    list: yup.string().oneOf(FLAG_LISTS).default('all'),
    /** Words that stand anywhere in the title, in the name of the taker or in the names of the asset from the plant down. */
    search: searchText(),
    ...pageFields(),
  })
  .noUnknown();

/** Boards in use, those of them that are favourites or the caller's own, and those in the archive. */
export const BOARD_LISTS = ['all', 'favourites', 'own', 'archive'] as const;

export const boardListSchema = yup
  .object({
    list: yup.string().oneOf(BOARD_LISTS).default('all'),
    label: yup.string().max(40).optional(),
    /** Only boards that show a metric of this asset, itself or in groups by its name. */
    assetId: idText().optional(),
    /** Words that stand anywhere in the title or in the name of the owner. */
    search: searchText(),
    ...pageFields(),
  })
  .noUnknown();

export const indicatorListSchema = yup
  .object({
    ids: idList(MAX_ITEMS),
    /** Words that stand anywhere in its name or in the names of its asset from the plant down. */
    search: searchText(),
    ...pageFields(),
  })
  .noUnknown();
