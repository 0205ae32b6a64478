import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  formatDate,
  LEVEL_WORDS,
  formatLength,
  formatNumber,
  type AlarmTest,
  type Metric,
  type RehearsalAnswer,
  type RuleInput,
} from '@vivid-beacon/core';
import { Words } from '../../components/Words';
import { CoursePick } from './CoursePick';
import { useWidth } from '../../hooks/useWidth';
import { usePalette } from '../../theme/useTheme';
import { draggedLimits } from './draggedLimits';
import { LimitHandle, LIMIT_HANDLE as HANDLE } from './LimitHandle';
import { rehearsalNotes } from './rehearsalNotes';
import { RehearsalStrip } from './RehearsalStrip';
import { COURSE_HEIGHT, STRIP_HEIGHT, STRIPS } from './stripSizes';
import { useCourse } from './useCourse';
import type { JudgedByRule } from './useJudged';

const LABEL = 78;

interface RehearsalViewProps {
  readonly answer: RehearsalAnswer;
  /** The same of the rule that is in force; null = there is none. */
  readonly now: RehearsalAnswer | null;
  readonly rule: RuleInput;
  readonly metric: Metric;
  readonly judged: JudgedByRule;
  readonly onTest: (test: AlarmTest) => void;
  readonly onCaution: (caution: RuleInput['caution']) => void;
}

/**
 * How often the rule would have fired, for how long, and when: on the course of the metric itself where a value decides,
 * with the limit to be dragged on it.
 */
export function RehearsalView({ answer, now, rule, metric, judged, onTest, onCaution }: RehearsalViewProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const { window, alarms } = answer;
  const length = (window.end - window.start) / STRIPS;
  const starts = Array.from({ length: STRIPS }, (_, i) => window.start + i * length);
  const newest = starts[STRIPS - 1];
  const limits = draggedLimits(rule, onTest, onCaution);
  // On the course the date stands above, so that the plot is as wide as it can be.
  const plot = Math.max(0, width - (limits.length > 0 ? HANDLE - 10 : LABEL));
  const [picked, setPicked] = useState<{ readonly under: string | null; readonly of: Metric } | null>(null);
  const of = picked !== null && picked.under === rule.under ? picked.of : metric;
  const course = useCourse({ rule, metricId: of.id, window, width: plot, limits });
  return (
    <View style={[styles.view, { backgroundColor: palette.well }]}>
      <View style={styles.figures}>
        <View style={styles.figure}>
          <Words as="hero">{formatNumber(alarms.length, 0)}</Words>
          <Words as="second" colour={palette.ink2}>
            {`${alarms.length === 1 ? 'time' : 'times'} it would fire${dataWords(answer)}`}
          </Words>
        </View>
        {answer.caution && (
          <View style={styles.figure}>
            <Words as="figure">{formatNumber(answer.caution.alarms.length, 0)}</Words>
            <Words as="second" colour={palette.ink2}>
              {`times ${LEVEL_WORDS.caution}`}
            </Words>
          </View>
        )}
        <View style={styles.figure}>
          <Words as="figure">{alarms.length === 0 ? '–' : formatLength(answer.longestMs)}</Words>
          <Words as="second" colour={palette.ink2}>
            longest
          </Words>
        </View>
        <View style={styles.figure}>
          <Words as="figure">{`${formatNumber(answer.share * 100, 1)} %`}</Words>
          <Words as="second" colour={palette.ink2}>
            {answer.dataMs < answer.window.end - answer.window.start
              ? 'of the time with data'
              : 'of the time'}
          </Words>
        </View>
      </View>
      <View onLayout={onLayout}>
        {starts.map((start) => (
          <View key={start} style={[styles.strip, course && styles.withCourse]}>
            <View style={styles.label}>
              <Words as="caption" colour={palette.ink2}>
                {formatDate(start, metric.zone)}
              </Words>
            </View>
            <View>
              <RehearsalStrip
                width={plot}
                start={start}
                length={length}
                alarms={alarms}
                cautions={answer.caution?.alarms ?? []}
                course={course}
                limits={limits}
              />
              {start === newest &&
                course &&
                limits.map(({ name, value, move }) => (
                  <LimitHandle
                    key={name}
                    x={plot}
                    value={value}
                    scale={course.y}
                    name={name}
                    decimals={course.decimals}
                    unit={course.unit}
                    onChange={move}
                  />
                ))}
            </View>
          </View>
        ))}
      </View>
      {course && rule.under !== null && (
        <CoursePick
          of={of}
          under={rule.under}
          onPick={(chosen) => setPicked({ under: rule.under, of: chosen })}
        />
      )}
      {rehearsalNotes(answer, now, judged.period).map((note) => (
        <Words key={note} as="second" colour={palette.ink2}>
          {note}
        </Words>
      ))}
    </View>
  );
}

/** Up to this share of the window without data needs no word. */
const NEARLY_ALL = 0.99;

/** " in 20 days with data"; "" where nearly all of the window has data. */
function dataWords({ dataMs, window }: RehearsalAnswer): string {
  return dataMs >= NEARLY_ALL * (window.end - window.start) ? '' : ` in ${formatLength(dataMs)} with data`;
}

const styles = StyleSheet.create({
  view: { padding: 14, gap: 10 },
  figures: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 20, rowGap: 8, alignItems: 'flex-end' },
  figure: {},
  strip: { flexDirection: 'row', alignItems: 'flex-end', gap: 8, height: STRIP_HEIGHT + 4 },
  withCourse: {
    flexDirection: 'column',
    alignItems: 'flex-start',
    gap: 2,
    height: STRIP_HEIGHT + COURSE_HEIGHT + 26,
  },
  label: { width: 70 },
});
