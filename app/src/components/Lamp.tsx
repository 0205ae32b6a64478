import { LEVEL_WORDS, type Level } from '@vivid-beacon/core';
import { useMemo } from 'react';
import { lampScene, type AlarmMark } from '@vivid-beacon/core/src/drawing/lampScene';
import { SceneView } from '../charts/SceneView';

interface LampProps {
  readonly level: Level;
  readonly size?: number;
  readonly mark?: AlarmMark;
  /** Set where no word stands beside the lamp. */
  readonly spoken?: boolean;
}

/** Steady light, half light, flare, light out: shape and colour of a level. Its word stands beside it. */
export function Lamp({ level, size = 22, mark, spoken = false }: LampProps) {
  const scene = useMemo(() => lampScene(level, size, mark), [level, size, mark]);
  return <SceneView scene={scene} name={spoken ? LEVEL_WORDS[level] : undefined} />;
}
