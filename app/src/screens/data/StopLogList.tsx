import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { HOUR_MS, DAY_MS, formatLength, type StopEntry } from '@vivid-beacon/core';
import { useStops } from '../../api/data';
import { QueryResult } from '../../components/QueryResult';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { StopForm } from './StopForm';
import { siteMoment } from '../siteMoment';

const WINDOWS = [
  { value: '1', label: '24 h' },
  { value: '7', label: '7 days' },
  { value: '30', label: '30 days' },
  { value: '365', label: 'a year' },
] as const;

/** Stops of a window: those still open first, and what the time went to. */
export function StopLogList({ mayEdit }: { readonly mayEdit: boolean }) {
  const palette = usePalette();
  const now = useNow();
  const [days, setDays] = useState<(typeof WINDOWS)[number]['value']>('7');
  const [edited, setEdited] = useState<StopEntry | null>(null);
  // Ends at a whole hour, so that the question stays the same for a while.
  const to = Math.ceil(now / HOUR_MS) * HOUR_MS;
  const stops = useStops(null, to - Number(days) * DAY_MS, to);
  return (
    <>
      <WordRow name="Window" options={WINDOWS} chosen={days} onChoose={setDays} />
      <QueryResult query={stops} reading="Loading stops">
        {({ entries, byReason, totalMs }) => (
          <>
            <Section
              title="Time stopped by reason"
              aside={`${formatLength(totalMs)} in all, overlaps counted once`}
            >
              {byReason.slice(0, 8).map(({ reason, stops: n, ms }) => (
                <View key={reason} style={styles.reason}>
                  <View style={styles.name}>
                    <Words as="body" lines={1}>
                      {reason}
                    </Words>
                  </View>
                  <View style={styles.track}>
                    <View
                      style={{
                        height: 6,
                        width: `${totalMs > 0 ? (100 * ms) / byReason[0].ms : 0}%`,
                        backgroundColor: palette.bar,
                      }}
                    />
                  </View>
                  <Words as="bodyStrong">{formatLength(ms)}</Words>
                  <Words as="second" colour={palette.ink2}>
                    {`${n} ${n === 1 ? 'stop' : 'stops'}`}
                  </Words>
                </View>
              ))}
              {byReason.length === 0 && (
                <Words as="body" colour={palette.ink2}>
                  No stop in this window.
                </Words>
              )}
            </Section>
            <Section title="Stops" aside={String(entries.length)} closed={false}>
              {entries.slice(0, 200).map((stop, i) => (
                <Row
                  key={stop.id}
                  title={`${stop.reason}, ${stop.assetName}`}
                  second={`${stop.plantName} · since ${siteMoment(stop.start, stop.zone, now)}${
                    stop.end === null ? ', still stopped' : ` for ${formatLength(stop.end - stop.start)}`
                  }${stop.category ? ` · ${stop.category}` : ''}`}
                  right={
                    stop.end === null ? (
                      <Words as="bodyStrong" colour={palette.cautionT}>
                        {`open ${formatLength(now - stop.start)}`}
                      </Words>
                    ) : undefined
                  }
                  onPress={mayEdit ? () => setEdited(stop) : undefined}
                  last={i === entries.length - 1}
                />
              ))}
            </Section>
          </>
        )}
      </QueryResult>
      <Tray title="Stop" open={edited !== null} onClose={() => setEdited(null)}>
        {edited && (
          <StopForm key={edited.id} stop={edited} assetId={edited.assetId} onDone={() => setEdited(null)} />
        )}
      </Tray>
    </>
  );
}

const styles = StyleSheet.create({
  reason: { flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 31 },
  name: { flex: 2, minWidth: 0 },
  track: { flex: 3, minWidth: 0 },
});
