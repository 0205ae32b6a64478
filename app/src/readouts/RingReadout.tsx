import { StyleSheet, View } from 'react-native';
import Svg, { Path, Text as SvgText } from 'react-native-svg';
import { ADDS_UP, formatNumber, ringOf } from '@vivid-beacon/core';
import { useBoardLook } from '../boards/BoardLookContext';
import { useParts } from '../boards/useParts';
import { ringPath } from '../charts/gaugeGeometry';
import { Notice } from '../components/Notice';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { SVG_FONT, SVG_FONT_STRONG } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { PartRow } from './PartRow';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './ReadoutView';

const LARGEST = 230;
/** One colour, fainter from part to part; each is named beside it. */
const FADE = [1, 0.72, 0.46, 0.24, 0.6, 0.34, 0.85, 0.15];

/** Shares of a whole: a ring, and under it each share with its name. */
export function RingReadout({ readout, title }: ReadoutProps) {
  const palette = usePalette();
  const { focus } = useBoardLook();
  const [width, onLayout] = useWidth();
  const answer = useParts(readout);
  const size = Math.min(width, LARGEST);
  return (
    <View onLayout={onLayout}>
      <PartsView answer={answer} title={title} reading="Reading the ring">
        {(parts, onOpen) => {
          const [measure] = answer.shown.readout.measures;
          // Means, extremes and ratios of parts make no whole.
          const ring = measure.per || !ADDS_UP.has(measure.summary) ? null : ringOf(parts);
          if (!ring) {
            return (
              <Notice
                kind="empty"
                title="No whole to have shares of"
                text="Shares need amounts that add up, such as a sum or an increase, and none below zero."
              />
            );
          }
          const r = size / 2;
          const path = (from: number, to: number): string =>
            ringPath(r, r, r - 2, r * 0.62, from + 0.6, Math.max(from + 0.7, to - 0.6));
          return (
            <View style={styles.ring}>
              {size > 60 && (
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
                  <SvgText
                    x={r}
                    y={r + 2}
                    fontFamily={SVG_FONT_STRONG}
                    fontSize={size > 150 ? 26 : 18}
                    fill={palette.ink}
                    textAnchor="middle"
                  >
                    {formatNumber(ring.total, answer.decimals)}
                  </SvgText>
                  <SvgText
                    x={r}
                    y={r + 20}
                    fontFamily={SVG_FONT}
                    fontSize={13}
                    fill={palette.ink2}
                    textAnchor="middle"
                  >
                    {ring.parts[0].of.unit}
                  </SvgText>
                </Svg>
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
  list: { flexGrow: 1, flexBasis: 200, minWidth: 0 },
  key: { width: 12, height: 20 },
});
