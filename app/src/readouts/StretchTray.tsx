import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import {
  formatLength,
  formatWindow,
  localWindow,
  LEVEL_WORDS,
  LEVELS,
  lowerFirst,
  type Bucket,
  type HoursFilter,
  type Interval,
  type Readout,
  type StretchNumbers,
} from '@vivid-beacon/core';
import { askReading } from '../api/readingBatcher';
import { mayAct } from '../api/mayAct';
import { usePerson } from '../api/session';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { useShown } from '../boards/useShown';
import { QueryResult } from '../components/QueryResult';
import { Button } from '../components/Button';
import { Fact } from '../components/Fact';
import { Lamp } from '../components/Lamp';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { FlagForm, type FlagSubject } from '../flags/FlagForm';
import { usePalette } from '../theme/useTheme';
import { levelsByWords } from './levelsByWords';
import { stretchRows, stretchEvidence, stretchText } from './stretchWords';

interface StretchTrayProps {
  readonly title: string;
  readonly readout: Readout;
  readonly stretch: Interval;
  readonly zone: string;
  readonly now: number;
  readonly hours: HoursFilter | null;
  /** The periods of its values; null = samples. */
  readonly bucket: Bucket | null;
  readonly onZoom: (stretch: Interval) => void;
  readonly onClose: () => void;
}

/** The numbers of a chosen stretch of time, per metric: summaries, and time in each level; to copy as text. */
export function StretchTray({
  title,
  readout,
  stretch,
  zone,
  now,
  hours,
  bucket,
  onZoom,
  onClose,
}: StretchTrayProps) {
  const { metrics } = useShown(readout);
  const ask = {
    measures: readout.measures,
    start: Math.round(stretch.start),
    end: Math.round(stretch.end),
    band: readout.band,
    hours,
    bucket,
  };
  const query = useQuery({
    queryKey: ['readings', 'stretch', ask],
    queryFn: ({ signal }) => askReading('stretch', ask, signal),
  });
  const [copied, setCopied] = useState(false);
  const [subject, setSubject] = useState<FlagSubject | null>(null);
  const person = usePerson();
  const { onStretch } = useBoardFilters();
  const when = `${formatWindow(stretch.start, stretch.end, zone, now)} (${zone}, ${formatLength(stretch.end - stretch.start)})`;
  const nameOf = (i: number): string => {
    const { metricId, per } = readout.measures[i];
    const metric = metrics.get(metricId);
    if (!metric) return 'removed metric';
    const lower = per && metrics.get(per.metricId);
    return `${metric.name}${lower ? ` per ${lowerFirst(lower.name)}` : ''}, ${metric.assetName}`;
  };
  const metric = metrics.get(readout.measures[0]?.metricId ?? '');
  const may = mayAct(person, metric?.plantId);
  const flagFor = (all: readonly StretchNumbers[]): FlagSubject => ({
    title: `Check ${metric!.assetName}, ${lowerFirst(metric!.name)}`,
    kind: 'loss',
    assetId: metric!.assetId,
    metricId: metric!.id,
    alarmId: null,
    evidence: stretchEvidence({ title, stretch, zone, all, nameOf }),
  });
  if (subject) {
    const close = (): void => {
      setSubject(null);
      onClose();
    };
    return (
      <Tray title="Flag" open onClose={close}>
        <FlagForm subject={subject} onDone={close} />
      </Tray>
    );
  }
  return (
    <Tray title="Numbers of this stretch" open onClose={onClose}>
      <Words as="body">{when}</Words>
      <QueryResult query={query} reading="Loading its numbers">
        {(all) => (
          <>
            {all.map((numbers, i) => (
              <OneMetric key={i} name={nameOf(i)} numbers={numbers} />
            ))}
            <View style={styles.buttons}>
              <Button
                label={copied ? 'Copied' : 'Copy as text'}
                onPress={() => {
                  void navigator.clipboard
                    .writeText(stretchText(title, when, all, nameOf))
                    .then(() => setCopied(true));
                }}
              />
              {may && metric && <Button label="Flag it" onPress={() => setSubject(flagFor(all))} />}
              {onStretch && (
                <Button
                  label="Make it the board's window"
                  onPress={() => {
                    onStretch(localWindow(stretch, zone));
                    onClose();
                  }}
                />
              )}
              <Button variant="primary" label="Zoom in on it" onPress={() => onZoom(stretch)} />
            </View>
          </>
        )}
      </QueryResult>
    </Tray>
  );
}

function OneMetric({ name, numbers }: { readonly name: string; readonly numbers: StretchNumbers }) {
  const palette = usePalette();
  const { levels } = numbers;
  return (
    <View style={styles.metric}>
      <Words as="rowTitle">{name}</Words>
      {stretchRows(numbers).map(([label, text]) => (
        <Fact key={label} name={label} text={text} />
      ))}
      {levels && (
        <View style={styles.levels}>
          {LEVELS.map((level) => (
            <View key={level} style={styles.level}>
              <Lamp level={level} size={18} />
              <Words
                as="second"
                colour={palette.ink2}
              >{`${LEVEL_WORDS[level]} ${formatLength(levels[level])}`}</Words>
            </View>
          ))}
          <Words as="second" colour={palette.ink2}>
            {levelsByWords(numbers.levelsBy)}
          </Words>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  metric: { gap: 4 },
  levels: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, rowGap: 4 },
  level: { flexDirection: 'row', alignItems: 'center', gap: 6 },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
