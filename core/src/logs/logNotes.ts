import * as yup from 'yup';
import { idText } from '../schemas/parts';
import { amount, list, shape, text, truth, type TypeOf } from '../schemas/shape';
import { intervalSchema, type Interval } from '../time/interval';
import { stopTime, type Stop } from './stopTime';

/** Most pieces of an answer: assets times stretches. */
export const MAX_NOTES = 200_000;

const span = intervalSchema.test(
  'order',
  '${path} must end after it starts',
  (value) => !value || value.start < value.end,
);

export const notesAsk = yup
  .object({
    assetIds: yup.array(idText().required()).min(1).max(5000).required(),
    /** Stretches of time, ms. */
    spans: yup.array(span.required()).min(1).max(2000).required(),
  })
  .noUnknown()
  .test(
    'pieces',
    `At most ${MAX_NOTES} assets times stretches of time`,
    ({ assetIds, spans }) => countOf(assetIds) * countOf(spans) <= MAX_NOTES,
  );
export type NotesAsk = TypeOf<typeof notesAsk>;

/** Tests run on what is no list as well. */
const countOf = (given: unknown): number => (Array.isArray(given) ? given.length : 0);

const logNote = shape({
  assetId: text(),
  /** Index of the stretch in what was asked. */
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

/**
 * What stops and remarks say of each asset with everything below it, by stretch of time.
 *
 * @param now an open stop lasts until then, ms.
 */
export function logNotes(
  { assetIds, spans }: NotesAsk,
  stops: readonly (Stop & OfAsset)[],
  remarks: readonly (Interval & OfAsset & { readonly text: string })[],
  now: number,
): LogNote[] {
  const stopsOf = byAsset(stops, assetIds);
  const remarksOf = byAsset(remarks, assetIds);
  return assetIds.flatMap((id) => {
    const [own, said] = [stopsOf.get(id) ?? [], remarksOf.get(id) ?? []];
    if (own.length + said.length === 0) return [];
    return spans.flatMap((span, at): LogNote[] => {
      const { totalMs, byReason } = stopTime(own, span, now);
      const texts = said.filter((each) => touches(each, span)).map((each) => each.text);
      if (totalMs === 0 && texts.length === 0) return [];
      return [
        {
          assetId: id,
          span: at,
          stoppedMs: totalMs,
          reasons: byReason.filter(({ ms }) => ms > 0).map(({ reason, ms }) => ({ reason, ms })),
          open: own.some((stop) => stop.end === null && touches({ start: stop.start, end: now }, span)),
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
