import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { ADDS_UP, formatNumber, ringOf } from '@vivid-beacon/core';
import { useBoardLook } from '../boards/BoardLookContext';
import { useParts } from '../boards/useParts';
import { ringPath } from '../charts/gaugeGeometry';
import { Notice } from '../components/Notice';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import { PartRow } from './PartRow';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './readoutProps';
import { RingTotalTray } from './RingTotalTray';

const LARGEST = 230;
/** One colour, fainter from part to part; each is named beside it. */
const FADE = [1, 0.72, 0.46, 0.24, 0.6, 0.34, 0.85, 0.15];

/** Shares of a whole: a ring, and under it each share with its name. */
export function RingReadout({ readout, title }: ReadoutProps) {
  const palette = usePalette();
  const { focus } = useBoardLook();
  const [width, onLayout] = useWidth();
  const answer = useParts(readout);
  const [whole, setWhole] = useState(false);
  const size = Math.min(width, LARGEST);
  return (
    <View onLayout={onLayout}>
      <PartsView answer={answer} title={title} reading="Reading the ring">
        {(parts, onOpen) => {
          const { measures } = answer.shown.readout;
          const units = [...new Set(parts.map(({ unit }) => unit))];
          // Means, extremes and ratios of parts make no whole, nor do kilograms and hours.
          const adds =
            units.length === 1 && measures.every(({ per, summary }) => !per && ADDS_UP.has(summary));
          const ring = adds ? ringOf(parts) : null;
          if (!ring) {
            return (
              <Notice
                kind="empty"
                title="No whole to have shares of"
                text={
                  units.length > 1
                    ? `Shares need amounts of one unit; these are in ${units.map((unit) => unit || 'none').join(' and ')}.`
                    : 'Shares need amounts that add up, such as a sum or an increase, and none below zero.'
                }
              />
            );
          }
          const r = size / 2;
          const path = (from: number, to: number): string =>
            ringPath(r, r, r - 2, r * 0.62, from + 0.6, Math.max(from + 0.7, to - 0.6));
          return (
            <View style={styles.ring}>
              {size > 60 && (
                <View>
                  <Svg
                    width={size}
                    height={size}
                    role="img"
                    aria-label={`${title}: ${ring.parts.map(({ of, share }) => `${of.name} ${percent(share)}`).join(', ')}`}
                  >
                    {ring.parts.map(({ of, from, to }, i) => (
                      <Path
                        key={of.key}
                        d={path(from, to)}
                        fill={palette.sea}
                        fillOpacity={FADE[i % FADE.length]}
                        stroke={focus !== null && of.assetId === focus ? palette.ink : palette.sea}
                        strokeWidth={focus !== null && of.assetId === focus ? 3 : 0.8}
                      />
                    ))}
                    {ring.others && (
                      <Path
                        d={path(ring.others.from, 360)}
                        fill={palette.well}
                        stroke={palette.line2}
                        strokeWidth={1}
                      />
                    )}
                  </Svg>
                  <View style={styles.whole}>
                    <NumberButton
                      text={formatNumber(ring.total, answer.decimals)}
                      unit=""
                      name={`the whole, in ${units[0] || 'no unit'}. How it was made`}
                      onPress={() => setWhole(true)}
                    />
                    <Words as="second" colour={palette.ink2}>
                      {units[0]}
                    </Words>
                  </View>
                </View>
              )}
              <View style={styles.list}>
                {ring.parts.map(({ of, share }, i) => (
                  <PartRow
                    key={of.key}
                    part={of}
                    judged={answer.shown.readout.band !== null}
                    decimals={answer.decimals}
                    last={i === ring.parts.length - 1 && !ring.others}
                    left={
                      <View
                        style={[styles.key, { backgroundColor: palette.sea, opacity: FADE[i % FADE.length] }]}
                      />
                    }
                    second={percent(share)}
                    onOpen={() => onOpen(of)}
                  />
                ))}
                {ring.others && (
                  <Words as="second" colour={palette.ink2}>
                    {`${ring.others.count} others, ${percent(ring.others.share)}`}
                  </Words>
                )}
              </View>
              {whole && (
                <RingTotalTray
                  title={title}
                  parts={parts}
                  total={ring.total}
                  decimals={answer.decimals}
                  onOpen={(part) => {
                    setWhole(false);
                    onOpen(part);
                  }}
                  onClose={() => setWhole(false)}
                />
              )}
            </View>
          );
        }}
      </PartsView>
    </View>
  );
}

function percent(share: number): string {
  return `${formatNumber(share * 100, share < 0.1 ? 1 : 0)} %`;
}

const styles = StyleSheet.create({
  ring: { flexDirection: 'row', flexWrap: 'wrap', gap: 16, alignItems: 'center', justifyContent: 'center' },
  // The words lie in the hole; only the number is pressed.
  whole: {
    ...StyleSheet.absoluteFill,
    alignItems: 'center',
    justifyContent: 'center',
    pointerEvents: 'box-none',
  },
  list: { flexGrow: 1, flexBasis: 200, minWidth: 0 },
  key: { width: 12, height: 20 },
});
