import { useMemo } from 'react';
import { BREAKDOWN_HITS, breakdownScene, type BreakdownData } from '@vivid-beacon/core/src/boards';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { PointedScene } from '../charts/PointedScene';
import type { DrawProps } from './drawProps';

/** Parts of a total: a tone picks its part, a name focuses it, an amount opens how it was made. */
export function BreakdownReadout({ data, title, width, onOpen, onTry }: DrawProps<BreakdownData>) {
  const { focus, onFocus } = useBoardFilters();
  const scene = useMemo(
    () => (width > 0 ? breakdownScene(data, { width, height: null, focus }) : null),
    [data, width, focus],
  );
  if (!scene) return null;
  const press = (hit: string): void => {
    const { drawn, pick, row } = BREAKDOWN_HITS;
    const key = hit.slice(hit.indexOf(' ') + 1);
    const part = data.parts.find((each) => each.key === key);
    if (!part) return;
    // What is no group has no making: it is picked.
    if (hit.startsWith(pick) || (hit.startsWith(drawn) && !part.of)) {
      const { without } = data.readout;
      onTry({ without: part.picked ? [...without, key] : without.filter((each) => each !== key) });
    } else if (hit.startsWith(row)) {
      if (part.of?.assetId) onFocus(part.of.assetId);
    } else if (part.of) onOpen(part.of);
  };
  return <PointedScene scene={scene} name={title} parts onPress={press} />;
}
