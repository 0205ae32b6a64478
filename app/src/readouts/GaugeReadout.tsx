import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue, type Readout, type ScaleChoice } from '@vivid-beacon/core';
import type { Part } from '../boards/parts';
import { useBoardLook } from '../boards/BoardLookContext';
import { useParts, type PartsAnswer } from '../boards/useParts';
import { Gauge } from '../charts/Gauge';
import { SMALLEST_GAUGE } from '../charts/gaugeGeometry';
import { sharedScale } from '../charts/valueAxis';
import { Button } from '../components/Button';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { usePalette } from '../theme/useTheme';
import { LampReadout } from './LampReadout';
import { PartsView } from './PartsView';
import type { ReadoutProps } from './readoutProps';
import { useOpenPlace } from './useOpenPlace';
import { StateLine, stateWords } from './StateLine';

const LARGEST = 280;
/** Side by side, gauges are drawn no narrower than this. */
const NARROWEST_MULTIPLE = 128;
const MARKS = 'ABCDEFGHIJKLMNOPQRST';

/** A round gauge, one for each group, or several values on one; each number opens how it was made. */
export function GaugeReadout(props: ReadoutProps) {
  const { readout, title } = props;
  const [width, onLayout] = useWidth();
  const answer = useParts(readout);
  if (width > 0 && width < SMALLEST_GAUGE) return <LampReadout {...props} />;
  return (
    <View onLayout={onLayout} style={styles.box}>
      <PartsView answer={answer} title={title} reading="Reading the gauge">
        {(parts, onOpen) =>
          readout.groupBy ? (
            <Multiples parts={parts} width={width} answer={answer} title={title} onOpen={onOpen} />
          ) : (
            <Together parts={parts} width={width} answer={answer} title={title} onOpen={onOpen} />
          )
        }
      </PartsView>
    </View>
  );
}

interface DrawnProps {
  readonly parts: readonly Part[];
  readonly width: number;
  readonly answer: PartsAnswer;
  readonly title: string;
  readonly onOpen: (part: Part) => void;
}

/** One gauge; the first value has the beam, others have marks with letters. */
function Together({ parts, width, answer, title, onOpen }: DrawnProps) {
  const [first, ...others] = parts;
  const { readout } = answer.shown;
  return (
    <>
      <GaugeButton
        part={first}
        name={title}
        width={Math.min(width, LARGEST)}
        answer={answer}
        scale={readout.scale}
        others={others.flatMap(({ value }, i) => (value === null ? [] : [{ mark: MARKS[i + 1], value }]))}
        onOpen={onOpen}
      />
      <StateLine part={first} band={readout.band} decimals={answer.decimals} />
      <MadeButton part={first} readout={readout} onOpen={onOpen} />
      {others.length > 0 && (
        <View style={styles.legend}>
          {parts.map((part, i) => (
            <Pressable key={part.key} role="button" onPress={() => onOpen(part)} style={styles.entry}>
              <Words as="second">
                {`${i === 0 ? 'Beam' : MARKS[i]}  ${part.name} ${formatValue(part.value, part.unit, answer.decimals)}`}
              </Words>
            </Pressable>
          ))}
        </View>
      )}
    </>
  );
}

/** A gauge for each group, all on one scale. */
function Multiples({ parts, width, answer, onOpen }: DrawnProps) {
  const palette = usePalette();
  const { focus } = useBoardLook();
  const { readout } = answer.shown;
  const columns = Math.max(1, Math.min(parts.length, Math.floor(width / NARROWEST_MULTIPLE)));
  const each = Math.floor(width / columns);
  const scale = sharedScale(readout.scale, readout.band, parts);
  return (
    <View style={styles.multiples}>
      {width > 0 &&
        parts.map((part) => {
          const chosen = focus !== null && part.assetId === focus;
          return (
            <View
              key={part.key}
              style={[
                styles.multiple,
                { width: `${100 / columns}%` },
                chosen && { backgroundColor: palette.water, outlineWidth: 2, outlineColor: palette.sea },
              ]}
            >
              <GaugeButton
                part={part}
                name={part.name}
                width={Math.min(each - 12, LARGEST)}
                answer={answer}
                scale={scale}
                others={[]}
                onOpen={onOpen}
              />
              <Words as="rowTitle">{part.name}</Words>
              <StateLine part={part} band={readout.band} decimals={answer.decimals} />
              <MadeButton part={part} readout={readout} onOpen={onOpen} />
            </View>
          );
        })}
    </View>
  );
}

/** Where a tap on the gauge goes elsewhere, how its number was made has a button of its own. */
function MadeButton({
  part,
  readout,
  onOpen,
}: Pick<DrawnProps, 'onOpen'> & { readonly part: Part; readonly readout: Readout }) {
  if (useOpenPlace(readout) === null) return null;
  return <Button look="quiet" label="How it was made" onPress={() => onOpen(part)} />;
}

interface GaugeButtonProps {
  readonly part: Part;
  readonly name: string;
  readonly width: number;
  readonly answer: PartsAnswer;
  readonly scale: ScaleChoice;
  readonly others: readonly { readonly mark: string; readonly value: number }[];
  readonly onOpen: (part: Part) => void;
}

function GaugeButton({ part, name, width, answer, scale, others, onOpen }: GaugeButtonProps) {
  const { readout } = answer.shown;
  const openPlace = useOpenPlace(readout);
  const does = openPlace ? `Open ${readout.link}` : 'How it was made';
  return (
    <View style={styles.gauge}>
      <Pressable
        role="button"
        aria-label={`${name}: ${formatValue(part.value, part.unit, answer.decimals)}, ${stateWords(part, readout.band, answer.decimals)}. ${does}`}
        onPress={openPlace ?? (() => onOpen(part))}
      >
        {width > 0 && (
          <Gauge
            width={width}
            value={part.value}
            level={part.level}
            band={readout.band}
            reference={part.previous}
            unit={part.unit}
            decimals={answer.decimals}
            scale={scale}
            others={others}
          />
        )}
      </Pressable>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: 4, alignItems: 'stretch' },
  gauge: { alignItems: 'center' },
  legend: {
    alignItems: 'center',
    flexDirection: 'row',
    flexWrap: 'wrap',
    columnGap: 14,
    justifyContent: 'center',
  },
  entry: { minHeight: 44, justifyContent: 'center' },
  multiples: { flexDirection: 'row', flexWrap: 'wrap' },
  multiple: {
    alignItems: 'center',
    paddingVertical: 6,
    outlineStyle: 'solid',
    outlineWidth: 0,
    outlineOffset: -2,
  },
});
