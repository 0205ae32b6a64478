import { StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import type { CorrectionChoice } from '@vivid-beacon/core';
import type { SentFile } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';

interface IntakeConfirmProps {
  readonly sent: SentFile;
  readonly onFinish: (corrections: CorrectionChoice) => void;
  readonly onCancel: () => void;
}

/** Asks before stored values change: of which metrics, where, and how many. */
export function IntakeConfirm({ sent, onFinish, onCancel }: IntakeConfirmProps) {
  const palette = usePalette();
  const changed = sent.effects.filter(({ corrected }) => corrected > 0);
  const total = changed.reduce((n, { corrected }) => n + corrected, 0);
  const count = (n: number): string => formatNumber(n, 0);
  const values = (n: number): string => `${count(n)} ${n === 1 ? 'value' : 'values'}`;
  return (
    <View style={styles.confirm} role="region" aria-label="Stored values would change">
      <Words as="sectionHead" heading={2}>
        {`${values(total)} would be corrected`}
      </Words>
      <Words as="body" colour={palette.ink2}>
        The file gives other values for times that are stored already. Nothing is stored yet. What is replaced
        is kept as a correction, and the whole file can be undone under Files.
      </Words>
      {changed.map(({ metricId, name, assetName, plantName, corrected, samples }, i) => (
        <Row
          key={metricId}
          title={`${name}, ${assetName}`}
          second={`${plantName}: ${values(corrected)} of ${count(samples)} in the file`}
          last={i === changed.length - 1}
        />
      ))}
      <View style={styles.buttons}>
        <Button label={`Replace ${values(total)}`} onPress={() => onFinish('replace')} />
        <Button
          label="Keep what is stored, take the rest"
          variant="primary"
          onPress={() => onFinish('keep')}
        />
        <Button label="Cancel" variant="quiet" onPress={onCancel} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  confirm: { gap: 8, paddingVertical: 12 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingTop: 8 },
});
