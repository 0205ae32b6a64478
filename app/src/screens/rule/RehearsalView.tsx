import { StyleSheet, View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { formatDate, formatLength, formatNumber } from '@vivid-beacon/core';
import type { RehearsalAnswer } from '../../api/rehearsal';
import { spacedOut } from '../../charts/spacedOut';
import { starPath } from '../../charts/starPath';
import { Words } from '../../components/Words';
import { rehearsalNotes } from './rehearsalNotes';
import { useWidth } from '../../hooks/useWidth';
import { usePalette } from '../../theme/useTheme';

const STRIPS = 3;
const STRIP_HEIGHT = 34;

interface RehearsalViewProps {
  readonly answer: RehearsalAnswer;
  /** The same of the rule that is in force; null = there is none. */
  readonly now: RehearsalAnswer | null;
  readonly zone: string;
}

/** How often the rule would have fired, for how long, and when. */
export function RehearsalView({ answer, now, zone }: RehearsalViewProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const { window, alarms } = answer;
  const length = (window.end - window.start) / STRIPS;
  return (
    <View style={[styles.view, { backgroundColor: palette.well }]}>
      <View style={styles.figures}>
        <View style={styles.figure}>
          <Words as="hero">{formatNumber(alarms.length, 0)}</Words>
          <Words as="second" colour={palette.ink2}>
            {alarms.length === 1 ? 'time it would fire' : 'times it would fire'}
          </Words>
        </View>
        <View style={styles.figure}>
          <Words as="figure">{alarms.length === 0 ? '–' : formatLength(answer.longestMs)}</Words>
          <Words as="second" colour={palette.ink2}>
            longest
          </Words>
        </View>
        <View style={styles.figure}>
          <Words as="figure">{`${formatNumber(answer.share * 100, 1)} %`}</Words>
          <Words as="second" colour={palette.ink2}>
            of the time
          </Words>
        </View>
      </View>
      <View onLayout={onLayout}>
        {Array.from({ length: STRIPS }, (_, i) => window.start + i * length).map((start) => (
          <View key={start} style={styles.strip}>
            <View style={styles.label}>
              <Words as="caption" colour={palette.ink2}>
                {formatDate(start, zone)}
              </Words>
            </View>
            <Strip width={Math.max(0, width - 78)} start={start} length={length} alarms={alarms} />
          </View>
        ))}
      </View>
      {rehearsalNotes(answer, now).map((note) => (
        <Words key={note} as="second" colour={palette.ink2}>
          {note}
        </Words>
      ))}
    </View>
  );
}

function Strip({
  width,
  start,
  length,
  alarms,
}: {
  readonly width: number;
  readonly start: number;
  readonly length: number;
  readonly alarms: RehearsalAnswer['alarms'];
}) {
  const palette = usePalette();
  if (width === 0) return null;
  const here = alarms.filter((alarm) => alarm.start >= start && alarm.start < start + length);
  const x = (t: number): number => ((t - start) / length) * width;
  return (
    <Svg width={width} height={STRIP_HEIGHT} aria-hidden>
      <Rect x={0.5} y={25} width={width - 1} height={7} fill={palette.sheet} stroke={palette.ink} />
      {Array.from({ length: 15 }, (_, i) => (
        <Rect key={i} x={((2 * i) / 30) * width} y={27} width={width / 30} height={3} fill={palette.ink} />
      ))}
      {here.map(({ start: from, end }) => (
        <Rect
          key={from}
          x={x(from)}
          y={20}
          width={Math.max(2, x(end ?? start + length) - x(from))}
          height={4}
          fill={palette.breach}
        />
      ))}
      {spacedOut(
        here.map(({ start: from }) => Math.min(width - 7, Math.max(7, x(from)))),
        14,
      ).map((at) => (
        <Path key={at} d={starPath(at, 10, 7, 4.3)} fill={palette.breach} />
      ))}
    </Svg>
  );
}

const styles = StyleSheet.create({
  view: { padding: 14, gap: 10 },
  figures: { flexDirection: 'row', gap: 20, alignItems: 'flex-end' },
  figure: { flexShrink: 1 },
  strip: { flexDirection: 'row', alignItems: 'flex-end', gap: 8, height: STRIP_HEIGHT + 4 },
  label: { width: 70 },
});
