/** What pairing needs to know of a metric. */
interface PlacedMetric {
  readonly id: string;
  readonly assetId: string;
  /** Ids of assets from the plant down to its own. */
  readonly path: readonly string[];
  readonly plantId: string;
}

/** Metrics that belong together in a ratio: gas and weight of one dryer. */
export interface Cell<Metric> {
  readonly metrics: readonly Metric[];
  /** Whether every side has a metric here; otherwise the cell cannot count. */
  readonly complete: boolean;
}

/**
 * Pairs the sides of a ratio (or the names of an expression), so that a member counts only where it has both:
 * metrics on one asset, or on an asset and one below it, belong together. If nothing in a plant pairs that way
 * (a boiler and the washers it serves), all metrics of the plant belong together; if no plant pairs, all do.
 *
 * @param sides metrics of each side. @returns every metric is in exactly one cell.
 * @example
 * cellsOf([
 *   [{ id: 'gas 1', assetId: '1', path: ['p', '1'], plantId: 'p' }, { id: 'gas 2', assetId: '2', path: ['p', '2'], plantId: 'p' }],
 *   [{ id: 'kg 1', assetId: '1', path: ['p', '1'], plantId: 'p' }],
 * ]).map((cell) => cell.complete) // => [true, false]
 */
export function cellsOf<Metric extends PlacedMetric>(
  sides: readonly (readonly Metric[])[],
): readonly Cell<Metric>[] {
  const all = sides.flatMap((metrics, side) => metrics.map((metric) => ({ metric, side })));
  const complete = (group: readonly Placed<Metric>[]): boolean =>
    sides.every((_, side) => group.some((each) => each.side === side));
  const asCell = (group: readonly Placed<Metric>[]): Cell<Metric> => ({
    metrics: [...new Map(group.map(({ metric }) => [metric.id, metric])).values()],
    complete: complete(group),
  });
  const byPlant = new Map<string, Placed<Metric>[]>();
  for (const each of all) {
    const members = byPlant.get(each.metric.plantId);
    if (members) members.push(each);
    else byPlant.set(each.metric.plantId, [each]);
  }
  const groups = [...byPlant.values()].flatMap((members) => {
    const linked = linkedByAsset(members);
    return linked.some(complete) ? linked : [members];
  });
  return groups.some(complete) ? groups.map(asCell) : [asCell(all)];
}

interface Placed<Metric> {
  readonly metric: Metric;
  readonly side: number;
}

/** Metrics joined where one lies on the asset of another or above it. */
function linkedByAsset<Metric extends PlacedMetric>(members: readonly Placed<Metric>[]): Placed<Metric>[][] {
  const parent = members.map((_, i) => i);
  const rootOf = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  const onAsset = new Map<string, number[]>();
  members.forEach(({ metric }, i) => {
    const there = onAsset.get(metric.assetId);
    if (there) there.push(i);
    else onAsset.set(metric.assetId, [i]);
  });
  members.forEach(({ metric }, i) => {
    for (const id of metric.path)
      for (const above of onAsset.get(id) ?? []) parent[rootOf(i)] = rootOf(above);
  });
  const groups = new Map<number, Placed<Metric>[]>();
  members.forEach((each, i) => {
    const root = rootOf(i);
    const group = groups.get(root);
    if (group) group.push(each);
    else groups.set(root, [each]);
  });
  return [...groups.values()];
}
