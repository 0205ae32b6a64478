import { useEffect, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import { formatNumber } from '@vivid-beacon/core';
import { Button } from '../components/Button';
import { Loading } from '../components/Loading';
import { Page } from '../components/Page';
import { Words } from '../components/Words';
import { call } from '../api/client';
import { createIntakeStore, type Mapping } from '../stores/intakeStore';
import { usePalette } from '../theme/useTheme';
import { makeIntakeWorker } from '../workers/makeIntakeWorker';
import { FileChooser } from './intake/FileChooser';
import { IntakeCheck } from './intake/IntakeCheck';
import { IntakeConfirm } from './intake/IntakeConfirm';
import { IntakeResult } from './intake/IntakeResult';
import { ProgressBar } from './intake/ProgressBar';
import { deviceZone } from './deviceZone';

/** Imports files: choose, check what was recognised, read, see the outcome. */
export function IntakeScreen() {
  const router = useRouter();
  const palette = usePalette();
  const client = useQueryClient();
  const [store] = useState(() =>
    createIntakeStore({
      makeWorker: makeIntakeWorker,
      // Only this app writes mappings, and the server keeps them as they are.
      recall: async (shape) =>
        (await call('GET /api/intake-mappings', { query: { shape } })) as Mapping | null,
      finish: async (id, order) => {
        const done = await call('POST /api/intakes/:id/finish', { params: { id }, body: order });
        await Promise.all([
          client.invalidateQueries({ queryKey: ['metrics'] }),
          client.invalidateQueries({ queryKey: ['assets'] }),
        ]);
        return done;
      },
      takeBack: (id) => call('DELETE /api/intakes/:id', { params: { id } }),
      zone: deviceZone(),
      now: () => Date.now(),
    }),
  );
  const state = useStore(store);
  useEffect(() => () => store.getState().actions.dispose(), [store]);
  return (
    <Page
      title="Intake"
      under={state.file?.name}
      onBack={() => router.navigate('/data')}
      backName="Back to data"
    >
      {state.error && <ErrorBox text={state.error} />}
      {(state.step === 'choose' || state.step === 'check') && (
        <FileChooser onChoose={state.actions.choose} another={state.step === 'check'} />
      )}
      {state.step === 'choose' && state.looking && state.file && (
        <View style={styles.reading}>
          <Loading what={`Scanning ${state.file.name}`} />
          {state.progress.share > 0 && <ProgressBar share={state.progress.share} name="Scanning the file" />}
          <Button label="Cancel" onPress={state.actions.stopLooking} />
        </View>
      )}
      {state.queue.length > 0 && state.step === 'check' && (
        <Words as="second" colour={palette.ink2}>
          {`Then ${state.queue.map(({ name }) => name).join(', ')}.`}
        </Words>
      )}
      {state.step === 'check' && <IntakeCheck store={store} />}
      {state.step === 'reading' && (
        <View style={styles.reading}>
          <ProgressBar share={state.progress.share} name="Reading the file" />
          <Words as="body" colour={palette.ink2}>
            {`${formatNumber(state.progress.rows, 0)} lines taken, ${formatNumber(state.progress.refused, 0)} refused so far. Nothing is stored before all of it is read.`}
          </Words>
          <Button label="Cancel" onPress={state.actions.cancel} />
        </View>
      )}
      {state.step === 'confirm' && state.sent && (
        <IntakeConfirm sent={state.sent} onFinish={state.actions.finish} onCancel={state.actions.cancel} />
      )}
      {state.step === 'storing' && <Loading what="Storing what was read" />}
      {state.step === 'done' && state.finished && (
        <IntakeResult
          finished={state.finished}
          left={state.queue.length}
          onNext={() => state.actions.next()}
        />
      )}
    </Page>
  );
}

/** What went wrong, where the person looks: scrolled to, focused and announced. */
function ErrorBox({ text }: { readonly text: string }) {
  const palette = usePalette();
  const box = useRef<View>(null);
  useEffect(() => {
    const element = box.current as unknown as HTMLElement | null;
    element?.scrollIntoView?.({ block: 'center' });
    element?.focus?.({ preventScroll: true });
  }, [text]);
  return (
    <View
      ref={box}
      role="alert"
      tabIndex={-1}
      style={[styles.error, { borderColor: palette.breach, backgroundColor: palette.breachW }]}
    >
      <Words as="body" colour={palette.breachT}>
        {text}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  error: { borderWidth: 1.5, borderRadius: 10, padding: 12, marginVertical: 8 },
  reading: { gap: 12, paddingVertical: 20, alignItems: 'flex-start' },
});
