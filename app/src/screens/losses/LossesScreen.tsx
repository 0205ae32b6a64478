import { useState } from 'react';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { IndicatorLoss } from '@vivid-beacon/core';
import { mayBuild } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { useIndicatorLosses } from '../../api/queries';
import { QueryResult } from '../../components/QueryResult';
import { Message } from '../../components/Message';
import { Page } from '../../components/Page';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { LossRow } from './LossRow';

const DAYS = [
  { value: '1', label: '24 h' },
  { value: '7', label: '7 days' },
  { value: '30', label: '30 days' },
] as const;

/** Where time is lost to breaches: indicators by the hours they lay in Breach. */
export function LossesScreen() {
  const palette = usePalette();
  const router = useRouter();
  const build = mayBuild(usePerson());
  const [days, setDays] = useState<(typeof DAYS)[number]['value']>('7');
  const losses = useIndicatorLosses(Number(days));
  return (
    <Page title="Losses" term="levels" under="Time outside the target band">
      <WordRow name="Window" options={DAYS} chosen={days} onChoose={setDays} />
      <QueryResult query={losses} reading={`Loading ${days} days`}>
        {(rows) =>
          rows.length === 0 ? (
            <Message
              kind="empty"
              title="No indicators yet"
              text="Losses are counted for indicators with a target band."
              action={
                build ? { label: 'New indicator', onPress: () => router.push('/indicators/new') } : undefined
              }
            />
          ) : (
            <LossList rows={rows} />
          )
        }
      </QueryResult>
      <Words as="second" colour={palette.ink2} style={{ paddingTop: 14 }}>
        Counted from the samples themselves, over long windows from quarter-hour means; a ratio counts by the
        hour, a total by periods as long as its window. Money, stops and energy against a baseline are not
        counted in this version.
      </Words>
    </Page>
  );
}

function LossList({ rows }: { readonly rows: readonly IndicatorLoss[] }) {
  const longest = Math.max(1, ...rows.map(({ breachMs, cautionMs }) => breachMs + cautionMs));
  return (
    <View role="list">
      {rows.map((row) => (
        <LossRow key={row.id} row={row} longest={longest} />
      ))}
    </View>
  );
}
