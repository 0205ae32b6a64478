import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, formatNumber, type Intake } from '@vivid-beacon/core';
import { useUndoIntake } from '../../api/dataChanges';
import { useIntakes } from '../../api/queries';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { linkTo } from '../../api/client';
import { Button } from '../../components/Button';
import { DownloadIcon, FileIcon, UndoIcon } from '../../components/icons';
import { Page } from '../../components/Page';
import { Rule } from '../../components/Rule';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { download } from '../download';
import { mayBuild } from '../../api/mayAct';
import { DataPlaces } from './DataPlaces';
import { deviceZone } from '../deviceZone';

/** Imported files: what was taken and refused, and undo. */
export function FilesScreen() {
  const palette = usePalette();
  const router = useRouter();
  const build = mayBuild(usePerson());
  const intakes = useIntakes();
  return (
    <Page
      title="Data"
      top={<DataPlaces open="/data/files" />}
      tools={
        build && (
          <Button
            variant="primary"
            label="Intake"
            icon={<FileIcon size={20} color={palette.btnT} strokeWidth={1.75} />}
            onPress={() => router.push('/data/intake')}
          />
        )
      }
    >
      <QueryResult query={intakes} reading="Loading intakes">
        {(rows) =>
          rows.length === 0 ? (
            <Words as="body" colour={palette.ink2}>
              No file has been imported yet. Choose Intake to import the first.
            </Words>
          ) : (
            <>
              {rows.map((intake) => (
                <IntakeRow key={intake.id} intake={intake} mayUndo={build} />
              ))}
            </>
          )
        }
      </QueryResult>
    </Page>
  );
}

function IntakeRow({
  intake,
  mayUndo,
}: {
  readonly intake: Omit<Intake, 'lines'>;
  readonly mayUndo: boolean;
}) {
  const palette = usePalette();
  const now = useNow();
  const undo = useUndoIntake();
  const zone = deviceZone();
  const count = (n: number): string => formatNumber(n, 0);
  const counts = [
    `${count(intake.added)} added`,
    intake.unchanged > 0 && `${count(intake.unchanged)} there already`,
    intake.corrected > 0 && `${count(intake.corrected)} corrected`,
    intake.refusedCount > 0 && `${count(intake.refusedCount)} refused`,
  ].filter(Boolean);
  const undone = intake.status === 'undone';
  return (
    <View style={styles.row}>
      <View style={styles.text}>
        <Words as="rowTitle" colour={undone ? palette.ink2 : palette.ink}>
          {undone ? `${intake.fileName} (undone)` : intake.fileName}
        </Words>
        <Words as="second" colour={palette.ink2}>
          {`${counts.join(', ')}. ${intake.startedBy}, ${formatMoment(intake.startedAt, zone, now)}`}
        </Words>
        {undo.data && (
          <Words as="second" colour={palette.clearT}>
            {`Undone: ${count(undo.data.removed)} samples taken away, ${count(undo.data.restored)} have their former value, ${count(undo.data.kept)} left because something else has changed them since.`}
          </Words>
        )}
        {undo.isError && (
          <Words as="second" colour={palette.breachT}>
            {undo.error.message}
          </Words>
        )}
      </View>
      <View style={styles.buttons}>
        <Button
          variant="quiet"
          label="Balance"
          name={`Download the balance of ${intake.fileName}`}
          icon={<DownloadIcon size={18} color={palette.ink} strokeWidth={1.75} />}
          onPress={() => download(linkTo('GET /api/intakes/:id/balance.csv', { params: { id: intake.id } }))}
        />
        {mayUndo && !undone && (
          <Button
            variant="quiet"
            label={undo.isPending ? 'Undoing' : 'Undo'}
            name={`Undo ${intake.fileName}`}
            disabled={undo.isPending}
            icon={<UndoIcon size={18} color={palette.ink} strokeWidth={1.75} />}
            onPress={() => undo.mutate(intake.id)}
          />
        )}
      </View>
      <Rule />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { paddingTop: 8, gap: 6 },
  text: { gap: 1 },
  buttons: { flexDirection: 'row', gap: 8, flexWrap: 'wrap', paddingBottom: 8 },
});
