import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Path, Rect } from 'react-native-svg';
import { ringPath } from '@vivid-beacon/core/src/drawing/gaugeGeometry';
import { hitAt, type HitRegion, type Scene } from '@vivid-beacon/core/src/drawing/scene';
import { usePalette } from '../theme/useTheme';
import { SceneView } from './SceneView';

interface PointedSceneProps {
  readonly scene: Scene;
  /** What is drawn, for screen readers. */
  readonly name: string;
  /** Acts on a part, by its key. */
  readonly onPress: (key: string) => void;
}

/**
 * A scene with hit regions that are pressed, or walked with the arrow keys, announced, and chosen with Enter.
 */
export function PointedScene({ scene, name, onPress }: PointedSceneProps) {
  const [walked, setWalked] = useState<string | null>(null);
  const { hits } = scene;
  const at = hits.findIndex(({ key }) => key === walked);
  const walk = (to: number): void => setWalked(hits[(to + hits.length) % hits.length].key);
  const onKeyDown = (event: KeyboardEvent): void => {
    const keys: Readonly<Record<string, () => void>> = {
      ArrowRight: () => walk(at + 1),
      ArrowDown: () => walk(at + 1),
      ArrowLeft: () => walk(at < 0 ? hits.length - 1 : at - 1),
      ArrowUp: () => walk(at < 0 ? hits.length - 1 : at - 1),
      ...(at >= 0 && { Enter: () => onPress(hits[at].key), Escape: () => setWalked(null) }),
    };
    const act = event.ctrlKey || event.metaKey || event.altKey ? undefined : keys[event.key];
    if (!act || hits.length === 0) return;
    act();
    event.preventDefault();
    event.stopPropagation();
  };
  const onClick = (event: MouseEvent): void => {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const hit = hitAt(hits, event.clientX - box.left, event.clientY - box.top);
    if (hit) onPress(hit.key);
  };
  return (
    <View
      // A drawing walked with the arrow keys; each region is announced.
      {...({ onKeyDown, onClick, onBlur: () => setWalked(null) } as object)}
      tabIndex={0}
      role="group"
      aria-label={`${name}: ${scene.spoken}. Arrow keys walk through its parts.`}
      style={styles.pointed}
    >
      <SceneView scene={scene}>{at >= 0 && <Walked shape={hits[at].shape} />}</SceneView>
      <View role="status" style={styles.told} aria-label={at >= 0 ? hits[at].spoken : ''} />
    </View>
  );
}

/** An outline around the part that the keys have reached. */
function Walked({ shape }: { readonly shape: HitRegion['shape'] }) {
  const palette = usePalette();
  const outline = { fill: 'none', stroke: palette.ink, strokeWidth: 2.5 };
  if (shape.kind === 'box') {
    const { x, y, width, height } = shape;
    return <Rect x={x} y={y} width={width} height={height} {...outline} />;
  }
  const { cx, cy, outer, inner, from, to } = shape;
  return <Path d={ringPath(cx, cy, outer, inner, from, Math.min(to, from + 359.9))} {...outline} />;
}

const styles = StyleSheet.create({
  pointed: { cursor: 'pointer' },
  // Told and not seen: the outline shows which part it is.
  told: { position: 'absolute', width: 1, height: 1, overflow: 'hidden' },
});
