import type { HitRegion, Mark, Scene } from '../../drawing/scene';
import { placed } from '../../drawing/scene';

/** Scenes in rows, as many in a row as fit, each centred in its cell. */
export function gridOf(
  cells: readonly { readonly key: string; readonly scene: Scene }[],
  width: number,
  narrowest: number,
): Scene {
  const columns = Math.max(1, Math.min(cells.length, Math.floor(width / narrowest)));
  const each = width / columns;
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  let y = 0;
  for (let i = 0; i < cells.length; i += columns) {
    const row = cells.slice(i, i + columns);
    row.forEach(({ key, scene }, k) => {
      const put = placed(scene, key, k * each + (each - scene.width) / 2, y);
      marks.push(...put.marks);
      hits.push(...put.hits);
    });
    y += Math.max(...row.map(({ scene }) => scene.height)) + GAP;
  }
  return {
    width,
    height: Math.max(0, y - GAP),
    marks,
    hits,
    spoken: cells.map(({ scene }) => scene.spoken).join('; '),
  };
}

const GAP = 12;

/** Scenes stacked vertically, aligned left. */
export function stackOf(
  rows: readonly { readonly key: string; readonly scene: Scene }[],
  width: number,
  gap = 0,
): Scene {
  let y = 0;
  const put = rows.map(({ key, scene }) => {
    const at = placed(scene, key, 0, y);
    y += scene.height + gap;
    return at;
  });
  return {
    width,
    height: Math.max(0, y - gap),
    marks: put.flatMap(({ marks }) => marks),
    hits: put.flatMap(({ hits }) => hits),
    spoken: rows.map(({ scene }) => scene.spoken).join('; '),
  };
}
