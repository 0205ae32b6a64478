import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import {
  LEFT_OUT_REASONS,
  leftOutLines,
  type Balance,
  type LeftOutReason,
} from '@vivid-beacon/core/src/intakeFiles';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const count = (n: number): string => formatNumber(n, 0);
const counted = (n: number, one: string, many = `${one}s`): string => `${count(n)} ${n === 1 ? one : many}`;

interface BalanceAccountProps {
  readonly balance: Balance;
  /** What is counted: lines of a text, rows of a sheet, items of a list. */
  readonly unit: 'line' | 'row' | 'item';
  /** Before the import, lines would be taken; after it, they are. */
  readonly before: boolean;
}

/** The outcome of every line of a file: four numbers that add up to the total. */
export function BalanceAccount({ balance, unit, before }: BalanceAccountProps) {
  const palette = usePalette();
  const out = leftOutLines(balance);
  const parts = [
    { name: 'Taken', n: balance.taken, fill: palette.sea },
    { name: 'Refused', n: balance.refused, fill: palette.ink },
    { name: 'Repeated', n: balance.repeated, fill: palette.bar },
    { name: 'Left out', n: out, fill: palette.well },
  ];
  const reasons = Object.entries(balance.leftOut).filter(([, n]) => n > 0) as [LeftOutReason, number][];
  const { blank, errors, met, notChosen } = balance.values;
  const cells = [
    before && `${counted(balance.values.taken, 'sample')} to take`,
    blank > 0 && `${counted(blank, 'blank cell')} left as missing`,
    errors > 0 && `${counted(errors, 'error cell')} left as missing`,
    met > 0 && `${counted(met, 'value')} collided with another of the same series and time`,
    notChosen > 0 && `${counted(notChosen, 'value')} of series that are left out`,
    balance.repeatedHour > 0 &&
      `${counted(balance.repeatedHour, 'time')} in the hour that a clock change repeats`,
    balance.shortRows > 0 && `${counted(balance.shortRows, 'row')} with fewer cells than columns`,
  ].filter(Boolean);
  return (
    <View style={styles.account}>
      <View
        role="img"
        aria-label={`${counted(balance.lines, unit)}: ${parts.map(({ name, n }) => `${count(n)} ${name.toLowerCase()}`).join(', ')}`}
        style={[styles.strip, { borderColor: palette.ink }]}
      >
        {parts
          .filter(({ n }) => n > 0)
          .map(({ name, n, fill }, i, shown) => (
            <View
              key={name}
              style={{
                flexGrow: n,
                flexBasis: 3,
                minWidth: 3,
                backgroundColor: fill,
                borderRightWidth: i === shown.length - 1 ? 0 : 1,
                borderRightColor: palette.ink,
              }}
            />
          ))}
      </View>
      <View style={styles.parts}>
        {parts.map(({ name, n, fill }) => (
          <View key={name} style={styles.part}>
            <View style={[styles.sample, { backgroundColor: fill, borderColor: palette.ink }]} />
            <Words as="figure">{count(n)}</Words>
            <Words as="second" colour={palette.ink2}>
              {name.toLowerCase()}
            </Words>
          </View>
        ))}
        <View style={styles.part}>
          <Words as="second" colour={palette.ink2}>
            {`of ${counted(balance.lines, unit)}`}
          </Words>
        </View>
      </View>
      {reasons.length > 0 && (
        <Words as="second" colour={palette.ink2}>
          {`Left out: ${reasons.map(([reason, n]) => `${count(n)} ${LEFT_OUT_REASONS[reason]}`).join(', ')}.`}
        </Words>
      )}
      {cells.length > 0 && (
        <Words as="second" colour={palette.ink2}>
          {`${cells.join(', ')}.`}
        </Words>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  account: { gap: 6, paddingVertical: 4 },
  strip: { flexDirection: 'row', height: 12, borderWidth: 1 },
  parts: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 18, rowGap: 4 },
  part: { flexDirection: 'row', alignItems: 'baseline', gap: 5 },
  sample: { width: 9, height: 9, borderWidth: 1 },
});
