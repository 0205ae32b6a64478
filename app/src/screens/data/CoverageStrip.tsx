import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Rect } from 'react-native-svg';
import { formatDate, formatNumber, type CoverageByDay } from '@vivid-beacon/core';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const HEIGHT = 44;

/** One column a day, as high as the share of the day with usable data. Arrow keys walk through the days. */
export function CoverageStrip({
  coverage,
  width,
}: {
  readonly coverage: CoverageByDay;
  readonly width: number;
}) {
  const palette = usePalette();
  const { day, coverage: share, samples, zone } = coverage;
  const [at, setAt] = useState<number | null>(null);
  const n = day.length;
  const step = width / Math.max(1, n);
  const whole = share.filter((each) => each >= 0.995).length;
  const none = share.filter((each) => each === 0).length;
  const words =
    at === null
      ? `${whole} of ${n} days complete, ${none} without any data`
      : `${formatDate(day[at], zone)}: ${formatNumber(100 * share[at], share[at] > 0.99 && share[at] < 1 ? 1 : 0)} % covered, ${formatNumber(samples[at], 0)} samples`;
  return (
    <View
      tabIndex={0}
      role="slider"
      aria-label="Coverage by day"
      aria-valuetext={words}
      {...({
        onKeyDown: (event: KeyboardEvent) => {
          if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
          event.preventDefault();
          const next = (at ?? n) + (event.key === 'ArrowLeft' ? -1 : 1);
          setAt(Math.min(n - 1, Math.max(0, next)));
        },
        onPointerMove: (event: PointerEvent) => {
          const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
          setAt(Math.min(n - 1, Math.max(0, Math.floor((event.clientX - box.left) / step))));
        },
        onPointerLeave: () => setAt(null),
      } as object)}
    >
      <Svg width={width} height={HEIGHT} aria-hidden>
        <Rect x={0} y={0} width={width} height={HEIGHT} fill={palette.well} />
        {share.map((each, i) => (
          <Rect
            key={day[i]}
            x={i * step + 0.5}
            y={HEIGHT * (1 - each)}
            width={Math.max(1, step - 1)}
            height={HEIGHT * each}
            fill={i === at ? palette.sea : palette.bar}
          />
        ))}
        <Rect x={0} y={HEIGHT - 1.5} width={width} height={1.5} fill={palette.ink} />
      </Svg>
      <View style={styles.words}>
        <Words as="second" colour={palette.ink2}>
          {words}
        </Words>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({ words: { paddingVertical: 4 } });
