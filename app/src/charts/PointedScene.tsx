import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Circle, Path, Rect } from 'react-native-svg';
import { ringPath } from '@vivid-beacon/core/src/drawing/gaugeGeometry';
import { hitAt, type Box, type HitRegion, type Scene } from '@vivid-beacon/core/src/drawing/scene';
import { usePalette } from '../theme/useTheme';
import { SceneView } from './SceneView';

interface PointedSceneProps {
  readonly scene: Scene;
  /** What is drawn, for screen readers. */
  readonly name: string;
  /** Whether each part is also a button of its own for screen readers; for no more parts than `MOST_PARTS`. */
  readonly parts?: boolean;
  /** Acts on a part, by its key. */
  readonly onPress: (key: string) => void;
}

/**
 * A scene with hit regions that are pressed, or walked with the arrow keys, announced, and chosen with Enter.
 */
export function PointedScene({ scene, name, parts = false, onPress }: PointedSceneProps) {
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
      aria-label={`${[name, scene.spoken].filter(Boolean).join(': ').replace(/\.$/, '')}. Arrow keys walk through its parts.`}
      style={styles.pointed}
    >
      <SceneView scene={scene}>{at >= 0 && <Walked shape={hits[at].shape} />}</SceneView>
      {parts && hits.length <= MOST_PARTS && <Parts hits={hits} onPress={onPress} />}
      <View role="status" style={styles.told} aria-label={at >= 0 ? hits[at].spoken : ''} />
    </View>
  );
}

/** Beyond so many the drawing is told as a whole. */
const MOST_PARTS = 400;

/** The parts as buttons that only screen readers meet: fingers and keys act on the drawing. */
function Parts({ hits, onPress }: { readonly hits: Scene['hits']; readonly onPress: (key: string) => void }) {
  return hits.map(({ key, spoken, shape }) => {
    const box = shape.kind === 'box' ? shape : boxAround(shape);
    return (
      <View
        key={key}
        {...({ onClick: (event: Event) => (event.stopPropagation(), onPress(key)) } as object)}
        role="button"
        tabIndex={-1}
        aria-label={spoken}
        style={[
          styles.part,
          { left: box.x, top: box.y, width: Math.max(1, box.width), height: Math.max(1, box.height) },
        ]}
      />
    );
  });
}

/** The square around a ring or a point. */
function boxAround(shape: Exclude<HitRegion['shape'], { kind: 'box' }>): Box {
  const r = shape.kind === 'ring' ? shape.outer : shape.r;
  return { x: shape.cx - r, y: shape.cy - r, width: 2 * r, height: 2 * r };
}

/** Radius of the outline around a point, px. */
const POINT_OUTLINE = 11;

/** An outline around the part that the keys have reached. */
function Walked({ shape }: { readonly shape: HitRegion['shape'] }) {
  const palette = usePalette();
  const outline = { fill: 'none', stroke: palette.ink, strokeWidth: 2.5 };
  if (shape.kind === 'box') {
    const { x, y, width, height } = shape;
    return <Rect x={x} y={y} width={width} height={height} {...outline} />;
  }
  if (shape.kind === 'point') return <Circle cx={shape.cx} cy={shape.cy} r={POINT_OUTLINE} {...outline} />;
  const { cx, cy, outer, inner, from, to } = shape;
  return <Path d={ringPath(cx, cy, outer, inner, from, Math.min(to, from + 359.9))} {...outline} />;
}

const styles = StyleSheet.create({
  pointed: { cursor: 'pointer' },
  part: { position: 'absolute', pointerEvents: 'none' },
  // Told and not seen: the outline shows which part it is.
  told: { position: 'absolute', width: 1, height: 1, overflow: 'hidden' },
});
