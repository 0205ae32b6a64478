import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { download } from '../download';
import type { Finished } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';

/** What became of every row of the file. */
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
  const { intake, counts } = finished;
  const { blankCells, repeatedHour, totalRows, leftOut } = counts;
  const count = (n: number): string => formatNumber(n, 0);
  const nothingNew = intake.added === 0 && intake.corrected === 0;
  return (
    <View style={styles.result} role="status">
      <Words as="sectionHead" heading={2}>
        {nothingNew ? 'Nothing new in this file' : `${count(intake.added)} samples added`}
      </Words>
      <Words as="body">
        {nothingNew
          ? `All ${count(intake.unchanged)} samples of ${count(intake.rows)} rows were there already, with the same values.`
          : `${count(intake.rows)} rows taken. ${count(intake.unchanged)} samples were there already, ${count(intake.corrected)} had another value and were corrected.`}
      </Words>
      <Words as="body" colour={palette.ink2}>
        {[
          `${count(intake.refusedCount)} refused`,
          `${count(blankCells)} blank ${blankCells === 1 ? 'cell' : 'cells'} left as missing`,
          repeatedHour > 0 && `${count(repeatedHour)} times in the hour that a clock change repeats`,
          totalRows > 0 && `${count(totalRows)} ${totalRows === 1 ? 'row' : 'rows'} of totals passed over`,
          leftOut > 0 && `${count(leftOut)} rows of names left out`,
        ]
          .filter(Boolean)
          .join(', ')}
      </Words>
      {intake.refusals.length > 0 && (
        <Section
          title="Refused"
          aside={
            intake.refusedCount > intake.refusals.length
              ? `first ${intake.refusals.length} of ${count(intake.refusedCount)}`
              : count(intake.refusedCount)
          }
        >
          {intake.refusals.map((refusal, i) => (
            <Row
              key={`${refusal.line}-${refusal.column}-${i}`}
              title={`Line ${refusal.line}: ${refusal.reason}`}
              second={`${refusal.column}: "${refusal.value}"`}
              last={i === intake.refusals.length - 1}
            />
          ))}
        </Section>
      )}
      <View style={styles.buttons}>
        {left > 0 && <Button label={`Next file (${left} left)`} look="main" onPress={onNext} />}
        {intake.refusedCount > 0 && (
          <Button
            label="Download refused rows"
            onPress={() => download(`/api/intakes/${intake.id}/refusals.csv`)}
          />
        )}
        <Button
          label="To the boards"
          look={left > 0 ? 'plain' : 'main'}
          onPress={() => router.navigate('/boards')}
        />
        <Button label="To the data" onPress={() => router.navigate('/data')} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  result: { gap: 8, paddingVertical: 12 },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap', paddingTop: 8 },
});
