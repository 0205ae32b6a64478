import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { focusedKey, MAX_RING_WIDTH, type RingData } from '@vivid-beacon/core/src/boards';
import { ringOpacity, ringScene, shareText } from '@vivid-beacon/core/src/pictures';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { PointedScene } from '../charts/PointedScene';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { ValueRow } from './ValueRow';
import { RingTotalTray } from './RingTotalTray';

/** Below this width only the list is shown. */
const MIN_RING_WIDTH = 60;

/** Shares of a whole: a ring, and under it each share with its name. */
export function RingReadout({ data, title, width, onOpen }: DrawProps<RingData>) {
  const palette = usePalette();
  const { focus } = useBoardFilters();
  const [whole, setWhole] = useState(false);
  const { values, ring, unit, decimals, readout } = data;
  const size = Math.min(width, MAX_RING_WIDTH);
  const scene = useMemo(
    () => ringScene({ ring, focused: focusedKey(data, focus), total: null }, size),
    [ring, data, focus, size],
  );
  return (
    <View style={styles.ring}>
      {size > MIN_RING_WIDTH && (
        <View>
          <PointedScene
            scene={scene}
            name={title}
            onPress={(key) => onOpen(ring.parts.find(({ of }) => of.key === key)!.of)}
          />
          <View style={styles.whole}>
            <NumberButton
              text={formatNumber(ring.total, decimals)}
              unit=""
              name={`the whole, in ${unit || 'no unit'}. How it was made`}
              onPress={() => setWhole(true)}
            />
            <Words as="second" colour={palette.ink2}>
              {unit}
            </Words>
          </View>
        </View>
      )}
      <View style={styles.list}>
        {ring.parts.map(({ of, share }, i) => (
          <ValueRow
            key={of.key}
            part={of}
            judged={readout.band !== null}
            decimals={decimals}
            last={i === ring.parts.length - 1 && !ring.others}
            left={<View style={[styles.key, { backgroundColor: palette.sea, opacity: ringOpacity(i) }]} />}
            second={shareText(share)}
            onOpen={() => onOpen(of)}
          />
        ))}
        {ring.others && (
          <Words as="second" colour={palette.ink2}>
            {`${ring.others.count} others, ${shareText(ring.others.share)}`}
          </Words>
        )}
      </View>
      {whole && (
        <RingTotalTray
          title={title}
          parts={values}
          total={ring.total}
          decimals={decimals}
          onOpen={(part) => {
            setWhole(false);
            onOpen(part);
          }}
          onClose={() => setWhole(false)}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  ring: { flexDirection: 'row', flexWrap: 'wrap', gap: 16, alignItems: 'center', justifyContent: 'center' },
  // Text in the hole; only the number can be pressed.
  whole: {
    ...StyleSheet.absoluteFill,
    alignItems: 'center',
    justifyContent: 'center',
    pointerEvents: 'box-none',
  },
  list: { flexGrow: 1, flexBasis: 200, minWidth: 0 },
  key: { width: 12, height: 20 },
});
