import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { PlusIcon } from '../../components/icons';
import { Page } from '../../components/Page';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { usePalette } from '../../theme/useTheme';
import { mayAct, mayBuild } from '../../api/mayAct';
import { DataPlaces } from './DataPlaces';
import { JobForm } from './JobForm';
import { JobLog } from './JobLog';
import { lazyScreen } from '../lazyScreen';
import { StopForm } from './StopForm';
import { StopLogList } from './StopLogList';

const LogImport = lazyScreen(async () => (await import('./fileScreens')).LogImport);

type Log = 'stops' | 'jobs';

/** The stop log and the job log. */
export function LogsScreen() {
  const palette = usePalette();
  const person = usePerson();
  const [log, setLog] = useState<Log>('stops');
  const [open, setOpen] = useState<'new' | 'import' | null>(null);
  const close = (): void => setOpen(null);
  return (
    <Page
      title="Data"
      top={<DataPlaces open="/data/logs" />}
      tools={
        <View style={styles.tools}>
          {mayBuild(person) && <Button label="From a file" onPress={() => setOpen('import')} />}
          {mayAct(person) && (
            <Button
              variant="primary"
              label={log === 'stops' ? 'Stop' : 'Job'}
              name={log === 'stops' ? 'Enter a stop' : 'Enter a job'}
              icon={<PlusIcon size={20} color={palette.btnT} strokeWidth={1.75} />}
              onPress={() => setOpen('new')}
            />
          )}
        </View>
      }
    >
      <WordRow
        name="Log"
        options={[
          { value: 'stops', label: 'Stops' },
          { value: 'jobs', label: 'Jobs' },
        ]}
        chosen={log}
        onChoose={(next) => setLog(next as Log)}
      />
      {log === 'stops' ? (
        <StopLogList mayEdit={mayAct(person)} />
      ) : (
        <JobLog mayEdit={mayAct(person)} mayBuild={mayBuild(person)} />
      )}
      <Tray title={log === 'stops' ? 'Stop' : 'Job'} open={open === 'new'} onClose={close}>
        {log === 'stops' ? (
          <StopForm stop={null} assetId={null} onDone={close} />
        ) : (
          <JobForm onDone={close} />
        )}
      </Tray>
      <Tray
        title={log === 'stops' ? 'Stops from a file' : 'Jobs from a file'}
        open={open === 'import'}
        onClose={close}
      >
        {open === 'import' && <LogImport log={log} />}
      </Tray>
    </Page>
  );
}

const styles = StyleSheet.create({ tools: { flexDirection: 'row', gap: 8 } });
