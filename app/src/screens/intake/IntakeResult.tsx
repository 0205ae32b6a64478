import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import type { ReportedLine } from '@vivid-beacon/core/src/intakeFiles';
import { linkTo } from '../../api/client';
import { Button } from '../../components/Button';
import { Words } from '../../components/Words';
import { download } from '../download';
import type { Finished } from '../../stores/intakeStore';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { BalanceAccount } from './BalanceAccount';
import { BoardOfIntake } from './BoardOfIntake';
import { ReportedLineList } from './ReportedLineList';

const KINDS: readonly ReportedLine['kind'][] = ['refused', 'met', 'repeated', 'short', 'leftOut'];

/** The outcome of every line of the file. */
export function IntakeResult({
  finished,
  left,
  onNext,
}: {
  readonly finished: Finished;
  /** Files still to come. */
  readonly left: number;
  readonly onNext: () => void;
}) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow(60_000);
  const { intake, look } = finished;
  const { balance } = intake.notes;
  const count = (n: number): string => formatNumber(n, 0);
  const samples = (n: number): string => `${count(n)} ${n === 1 ? 'sample' : 'samples'}`;
  const nothingNew = intake.added === 0 && intake.corrected === 0;
  const title = nothingNew
    ? 'Nothing new in this file'
    : intake.added > 0
      ? `${samples(intake.added)} added`
      : `${samples(intake.corrected)} corrected`;
  const there = [
    intake.unchanged > 0 && `${samples(intake.unchanged)} stored before with the same values`,
    intake.added > 0 && intake.corrected > 0 && `${samples(intake.corrected)} corrected`,
  ].filter(Boolean);
  const told = (kind: ReportedLine['kind']): number =>
    kind === 'leftOut' || look.reportedCounts[kind] === 0
      ? intake.lines.filter((each) => each.kind === kind).length
      : Math.max(look.reportedCounts[kind], intake.lines.filter((each) => each.kind === kind).length);
  return (
    <View style={styles.result} role="status">
      <Words as="sectionHead" heading={2}>
        {title}
      </Words>
      {there.length > 0 && <Words as="body">{`${there.join(', ')}.`}</Words>}
      {intake.metrics.length > 0 && (
        <Words as="body" colour={palette.ink2}>
          {`${count(intake.metrics.length)} ${intake.metrics.length === 1 ? 'metric' : 'metrics'} fed: ${intake.metrics
            .slice(0, 6)
            .map(({ name, assetName }) => `${name} of ${assetName}`)
            .join(', ')}${intake.metrics.length > 6 ? ` and ${intake.metrics.length - 6} more` : ''}.`}
        </Words>
      )}
      {balance && <BalanceAccount balance={balance} unit={look.counted} before={false} />}
      <View style={styles.buttons}>
        {left === 0 && intake.added > 0 && <BoardOfIntake intake={intake} now={now} />}
        {left > 0 && <Button label={`Next file (${left} left)`} variant="primary" onPress={onNext} />}
        <Button
          label="Download the balance"
          onPress={() => download(linkTo('GET /api/intakes/:id/balance.csv', { params: { id: intake.id } }))}
        />
        <Button label="Go to boards" onPress={() => router.navigate('/boards')} />
        <Button label="Go to data" onPress={() => router.navigate('/data')} />
      </View>
      {KINDS.map((kind) => (
        <ReportedLineList
          key={kind}
          kind={kind}
          lines={intake.lines}
          total={told(kind)}
          unit={look.counted}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  result: { gap: 8, paddingVertical: 12 },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap', paddingTop: 8 },
});
