import { useMemo } from 'react';
import {
  MIN_STRAIGHT_WIDTH,
  straightScene,
  type StraightOptions,
} from '@vivid-beacon/core/src/drawing/straightScene';
import { SceneView } from './SceneView';

/** A gauge laid flat, for rows; nothing where there is no room for it. */
export function StraightGauge({
  width,
  value,
  level,
  band,
  reference,
  decimals,
  scale,
}: StraightOptions & { readonly width: number }) {
  const scene = useMemo(
    () =>
      width < MIN_STRAIGHT_WIDTH
        ? null
        : straightScene({ value, level, band, reference, decimals, scale }, width),
    [value, level, band, reference, decimals, scale, width],
  );
  return scene && <SceneView scene={scene} name={scene.spoken} />;
}
