import { StyleSheet, View } from 'react-native';
import {
  changeOf,
  formatMoment,
  formatNumber,
  formatValue,
  type Readout,
  periodOfSparkline,
} from '@vivid-beacon/core';
import { useTrend } from '../api/queries';
import type { Part } from '../boards/parts';
import { lengthOfWindow } from '../boards/windowLength';
import { useParts, type PartsAnswer } from '../boards/useParts';
import { Spark } from '../charts/Spark';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import { PartRow } from './PartRow';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './readoutProps';
import { StateLine, stateWords } from './StateLine';

/** A number with its level, target, change against its reference, and a small trend; or a list of numbers. */
export function FigureReadout({ readout, title }: ReadoutProps) {
  const answer = useParts(readout);
  const { band } = answer.shown.readout;
  return (
    <View>
      <PartsView answer={answer} title={title} reading="Reading the figure">
        {(parts, onOpen) =>
          parts.length === 1 ? (
            <OneFigure part={parts[0]} answer={answer} title={title} onOpen={() => onOpen(parts[0])} />
          ) : (
            parts.map((part, i) => (
              <PartRow
                key={part.key}
                part={part}
                judged={band !== null}
                decimals={answer.decimals}
                last={i === parts.length - 1}
                second={
                  band
                    ? stateWords(part, band, answer.decimals)
                    : part.previous === null
                      ? undefined
                      : changeWords(part, answer.decimals, baseWords(answer.shown.readout))
                }
                onOpen={() => onOpen(part)}
              />
            ))
          )
        }
      </PartsView>
    </View>
  );
}

const SPARK_HEIGHT = 40;

function OneFigure({
  part,
  answer,
  title,
  onOpen,
}: {
  readonly part: Part;
  readonly answer: PartsAnswer;
  readonly title: string;
  readonly onOpen: () => void;
}) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const { decimals } = answer;
  const { readout, window, hours } = answer.shown;
  const trend = useTrend(
    width > 0
      ? {
          measure: readout.measures[0],
          window,
          bucket: periodOfSparkline(lengthOfWindow(window, part.zone)),
          columns: Math.max(10, Math.round(width)),
          hours,
        }
      : null,
  );
  const target = readout.band?.target ?? null;
  return (
    <View onLayout={onLayout} style={styles.box}>
      <View style={styles.number}>
        <NumberButton
          as="hero"
          text={part.value === null ? '–' : formatNumber(part.value, decimals)}
          unit={part.unit}
          name={`${title}. How it was made`}
          onPress={onOpen}
        />
      </View>
      {(readout.band || part.level === 'nodata') && (
        <View style={styles.state}>
          <StateLine part={part} band={readout.band} decimals={decimals} />
        </View>
      )}
      {target !== null && (
        <Words
          as="second"
          colour={palette.ink2}
        >{`target ${formatValue(target, part.unit, decimals)}`}</Words>
      )}
      {(readout.compare !== 'none' || readout.reference) && (
        <Words as="second" colour={palette.ink2}>
          {changeWords(part, decimals, baseWords(readout))}
        </Words>
      )}
      {trend.data && <Spark width={width} height={SPARK_HEIGHT} answer={trend.data} />}
      <Words as="caption" colour={palette.ink3}>
        {part.asOf === null
          ? 'no sample'
          : `as of ${formatMoment(part.asOf, part.zone, part.now)}${part.partial ? ', unfinished period' : ''}`}
      </Words>
    </View>
  );
}

const EARLIER: ReadonlySet<string> = new Set(['before', 'last year']);

/** What the base of a change is called behind its value. */
function baseWords({ compare, reference }: Readout): string {
  if (reference)
    return { fixed: 'as reference', baseline: 'as usual', measure: 'as reference' }[reference.kind];
  return compare === 'lastYear' ? 'last year' : 'before';
}

/** Change against the reference: "up 3.1 % on 1,204 kg before"; without a percentage where it would say nothing. */
export function changeWords(
  { value, previous, unit, partial }: Pick<Part, 'value' | 'previous' | 'unit' | 'partial'>,
  decimals: number,
  when = 'before',
): string {
  const change = changeOf(value, previous);
  if (!change) return 'nothing to compare with';
  const whole = partial && EARLIER.has(when) ? `by this time ${when}` : when;
  const base = `${formatValue(previous, unit, decimals)} ${whole}`;
  const { by, percent } = change;
  if (by === 0) return `the same as ${base}`;
  const share = percent === null ? '' : ` (${formatNumber(Math.abs(percent), 1)} %)`;
  return `${by > 0 ? 'up' : 'down'} ${formatNumber(Math.abs(by), decimals)}${share} on ${base}`;
}

const styles = StyleSheet.create({
  box: { gap: 4, alignItems: 'stretch' },
  number: { alignItems: 'flex-start' },
  state: { alignItems: 'flex-start' },
});
