import { useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import {
  figureWords,
  isThin,
  MIN_SPARK_WIDTH,
  secondWords,
  SPARK_HEIGHT,
  type FigureData,
} from '@vivid-beacon/core/src/boards';
import { sparkScene } from '@vivid-beacon/core/src/pictures';
import { SceneView } from '../charts/SceneView';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { ValueRow } from './ValueRow';
import { StateLine } from './StateLine';

/** A number with its level, target, change against its reference, and a small trend; or a list of numbers. */
export function FigureReadout(props: DrawProps<FigureData>) {
  const { data, onOpen } = props;
  const { values, readout, decimals } = data;
  if (values.length === 1) return <OneFigure {...props} />;
  return values.map((part, i) => (
    <ValueRow
      key={part.key}
      part={part}
      judged={readout.band !== null}
      decimals={decimals}
      last={i === values.length - 1}
      second={secondWords(data, part)}
      onOpen={() => onOpen(part)}
    />
  ));
}

function OneFigure({ data, title, width, onOpen }: DrawProps<FigureData>) {
  const palette = usePalette();
  const { readout, decimals, course } = data;
  const [part] = data.values;
  const { target, change, asOf } = figureWords(data, part);
  const spark = useMemo(
    () => (course && width >= MIN_SPARK_WIDTH ? sparkScene(course, width, SPARK_HEIGHT) : null),
    [course, width],
  );
  return (
    <View style={styles.box}>
      <View style={styles.number}>
        <NumberButton
          as="hero"
          text={part.value === null ? '–' : formatNumber(part.value, decimals)}
          unit={part.unit}
          name={`${title}. How it was made`}
          faint={isThin(part)}
          onPress={() => onOpen(part)}
        />
      </View>
      {(readout.band || part.level === 'nodata') && (
        <View style={styles.state}>
          <StateLine part={part} band={readout.band} decimals={decimals} />
        </View>
      )}
      {target && (
        <Words as="second" colour={palette.ink2}>
          {target}
        </Words>
      )}
      {change && (
        <Words as="second" colour={palette.ink2}>
          {change}
        </Words>
      )}
      {spark && <SceneView scene={spark} />}
      <Words as="caption" colour={palette.ink3}>
        {asOf}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: 4, alignItems: 'stretch' },
  number: { alignItems: 'flex-start' },
  state: { alignItems: 'flex-start' },
});
