import * as yup from 'yup';
import type { Metric } from '../api/metrics';
import { namedMetricFields } from '../schemas/lists';
import { nameKey } from '../text/sameName';

/* What files name: metrics, assets, indicators and boards, told so that another server finds them again. */

/** A metric named in a file: its key, and words for a person who has to find a substitute. */
export interface FileMetric {
  readonly id: string;
  readonly key: string;
  readonly name: string;
  readonly asset: string;
  readonly unit: string;
}

/** An asset, a board or an indicator named in a file, by its id there and by what it is found again with. */
export interface FilePlace {
  readonly id: string;
  /** Names from the plant down, or the title of a board. */
  readonly title: string;
}
export interface FileIndicator {
  readonly id: string;
  readonly name: string;
  /** Names of its asset from the plant down. */
  readonly place: string;
}

/** What a document names besides metrics. */
export interface NamedPlaces {
  readonly assets: readonly FilePlace[];
  readonly indicators: readonly FileIndicator[];
  readonly boards: readonly FilePlace[];
}
/** What a metric is found again by. */
type Nameable = Pick<Metric, 'id' | 'key' | 'name' | 'assetName' | 'plantName' | 'unit'>;

/** These metrics as a file names them. Those that are not among `metrics` are left out. */
export function nameMetrics(ids: readonly string[], metrics: readonly Nameable[]): FileMetric[] {
  const byId = new Map(metrics.map((metric) => [metric.id, metric]));
  return ids.flatMap((id): FileMetric[] => {
    const metric = byId.get(id);
    if (!metric) return [];
    const { key, name, assetName, plantName, unit } = metric;
    return [
      { id, key, name, asset: assetName === plantName ? plantName : `${plantName} / ${assetName}`, unit },
    ];
  });
}

export const metricsInFile = yup
  .array(
    yup
      .object({
        id: yup.string().max(20).required(),
        ...namedMetricFields(),
      })
      .required(),
  )
  .max(1200)
  .required();

const place = { id: yup.string().max(20).required() };
const titled = yup
  .array(yup.object({ ...place, title: yup.string().max(2000).required() }).required())
  .max(1200)
  .default([]);
/** Files of before this had only metrics. */
export const placesInFile = yup
  .object({
    assets: titled,
    boards: titled,
    indicators: yup
      .array(
        yup
          .object({
            ...place,
            name: yup.string().max(200).required(),
            place: yup.string().max(2000).required(),
          })
          .required(),
      )
      .max(1200)
      .default([]),
  })
  .transform(({ assets, boards, indicators }: Partial<NamedPlaces>) => ({ assets, boards, indicators }));

/**
 * Matches each metric of a file with one here, by key or by name, asset and unit; null where there is none.
 */
export function matchMetrics(
  file: { readonly metrics: readonly FileMetric[] },
  metrics: readonly Nameable[],
): Map<string, string | null> {
  const byKey = new Map(metrics.map((metric) => [metric.key, metric]));
  return new Map(
    file.metrics.map((wanted) => {
      const same = metrics.filter(
        ({ name, unit, assetName, plantName }) =>
          name === wanted.name &&
          unit === wanted.unit &&
          (wanted.asset === `${plantName} / ${assetName}` || wanted.asset === plantName),
      );
      return [wanted.id, byKey.get(wanted.key)?.id ?? (same.length === 1 ? same[0].id : null)];
    }),
  );
}

/** What is here by the ids of a file; absent or null = not here. */
export interface FoundHere {
  readonly metrics: ReadonlyMap<string, string | null>;
  readonly assets: ReadonlyMap<string, string>;
  readonly indicators: ReadonlyMap<string, string>;
  readonly boards: ReadonlyMap<string, string>;
}

/** Finds the assets, indicators and boards of a file again: by their names from the plant down, or by the title. */
export function matchPlaces(
  file: NamedPlaces,
  here: {
    readonly assets: readonly { readonly id: string; readonly title: string }[];
    readonly indicators: readonly { readonly id: string; readonly name: string; readonly place: string }[];
    readonly boards: readonly { readonly id: string; readonly title: string }[];
  },
): Pick<FoundHere, 'assets' | 'indicators' | 'boards'> {
  const titled = (wanted: readonly FilePlace[], found: readonly FilePlace[]): Map<string, string> =>
    new Map(
      wanted.flatMap(({ id, title }) => {
        const same = found.filter((each) => sameText(each.title, title));
        // On the same server it is the one of this id; two boards may bear one title.
        const one = same.find((each) => each.id === id) ?? (same.length === 1 ? same[0] : undefined);
        return one ? [[id, one.id] as const] : [];
      }),
    );
  return {
    assets: titled(file.assets, here.assets),
    boards: titled(file.boards, here.boards),
    indicators: new Map(
      file.indicators.flatMap(({ id, name, place: at }) => {
        const one = here.indicators.find((each) => sameText(each.name, name) && sameText(each.place, at));
        return one ? [[id, one.id] as const] : [];
      }),
    ),
  };
}

const sameText = (a: string, b: string): boolean => nameKey(a) === nameKey(b);
