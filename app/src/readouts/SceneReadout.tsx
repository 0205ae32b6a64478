import { useMemo } from 'react';
import { type ReadoutValue, type ReadData, formOf } from '@vivid-beacon/core/src/boards';
import { NOTHING_ALONG } from '@vivid-beacon/core/src/pictures';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { PointedScene } from '../charts/PointedScene';
import { SceneView } from '../charts/SceneView';
import type { DrawProps } from './drawProps';

/** The default component of a form: its scene, whose parts open the provenance of their values. */
export function SceneReadout({
  data,
  readout,
  title,
  width,
  onOpen,
}: DrawProps<ReadData & { readonly values?: readonly ReadoutValue[] }>) {
  const { focus } = useBoardFilters();
  const scene = useMemo(
    () =>
      width > 0
        ? formOf(readout.form).scene(data, { width, height: null, focus, along: NOTHING_ALONG })
        : null,
    [readout.form, data, width, focus],
  );
  if (!scene) return null;
  if (scene.hits.length === 0) return <SceneView scene={scene} name={`${title}: ${scene.spoken}`} />;
  const open = (key: string): void => {
    const value = data.values?.find((each) => each.key === key);
    if (value) onOpen(value);
  };
  return <PointedScene scene={scene} name={title} onPress={open} />;
}
