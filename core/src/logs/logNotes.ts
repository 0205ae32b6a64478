import * as yup from 'yup';
import { idText } from '../schemas/parts';
import { amount, list, shape, text, truth, type TypeOf } from '../schemas/shape';
import { hoursSchema } from '../schemas/hours';
import { BUCKETS } from '../time/buckets';
import type { Interval } from '../time/interval';
import { windowSchema } from '../time/windowSpec';
import { stopTime, type Stop } from './stopTime';

/** Most pieces of an answer: assets times stretches of time, and times the pieces that recurring hours cut those into. */
export const MAX_NOTES = 200_000;

export const notesAsk = yup
  .object({
    assetIds: yup.array(idText().required()).min(1).max(5000).required(),
    window: windowSchema,
    /** Besides the whole window also each of these periods; null = the window alone. */
    bucket: yup.string().oneOf(BUCKETS).nullable().default(null),
    /** Only stops and remarks in these hours; null = all hours. */
    hours: hoursSchema.nullable().default(null),
  })
  .noUnknown();
export type NotesAsk = TypeOf<typeof notesAsk>;

const logNote = shape({
  assetId: text(),
  /** 0 = the whole window, then its periods in order; each asset's are those of its own site. */
  span: amount(),
  /** ms stopped; overlapping stops of one asset count once. */
  stoppedMs: amount(),
  /** The most time first; together stoppedMs. */
  reasons: list(shape({ reason: text(), ms: amount() })),
  /** Whether a stop has not ended. */
  open: truth(),
  /** Texts of remarks, in order of time. */
  remarks: list(text()),
});
/** What the logs say of an asset, and of everything below it, in one stretch of time. */
export type LogNote = TypeOf<typeof logNote>;

export const notesAnswer = shape({
  /** Only those that say something. */
  notes: list(logNote),
  now: amount(),
});
export type NotesAnswer = TypeOf<typeof notesAnswer>;

interface OfAsset {
  /** Ids of assets from the plant down to its own. */
  readonly path: readonly string[];
}

/** An asset with its stretches of time, each of the pieces in which it counts. */
export interface AssetStretches {
  readonly assetId: string;
  readonly stretches: readonly (readonly Interval[])[];
}

/**
 * What stops and remarks say of each asset with everything below it, by stretch of time.
 *
 * @param now an open stop lasts until then, ms.
 */
export function logNotes(
  assets: readonly AssetStretches[],
  stops: readonly (Stop & OfAsset)[],
  remarks: readonly (Interval & OfAsset & { readonly text: string })[],
  now: number,
): LogNote[] {
  const ids = assets.map(({ assetId }) => assetId);
  const stopsOf = byAsset(stops, ids);
  const remarksOf = byAsset(remarks, ids);
  return assets.flatMap(({ assetId, stretches }) => {
    const [own, said] = [stopsOf.get(assetId) ?? [], remarksOf.get(assetId) ?? []];
    if (own.length + said.length === 0) return [];
    return stretches.flatMap((pieces, at): LogNote[] => {
      const touched = (each: Interval): boolean => pieces.some((piece) => touches(each, piece));
      const { totalMs, byReason } = stopTime(own, pieces, now);
      const texts = said.filter(touched).map((each) => each.text);
      if (totalMs === 0 && texts.length === 0) return [];
      return [
        {
          assetId,
          span: at,
          stoppedMs: totalMs,
          reasons: byReason.filter(({ ms }) => ms > 0).map(({ reason, ms }) => ({ reason, ms })),
          open: own.some((stop) => stop.end === null && touched({ start: stop.start, end: now })),
          remarks: texts,
        },
      ];
    });
  });
}

const touches = (a: Interval, b: Interval): boolean => a.start < b.end && a.end > b.start;

/** What is said of each of these assets or of anything below it. */
function byAsset<T extends OfAsset>(all: readonly T[], assetIds: readonly string[]): Map<string, T[]> {
  const found = new Map<string, T[]>(assetIds.map((id) => [id, []]));
  for (const each of all) for (const id of each.path) found.get(id)?.push(each);
  return found;
}
