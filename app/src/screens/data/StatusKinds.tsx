import { View } from 'react-native';
import type { StatusKind } from '@vivid-beacon/core';
import { useStatusKinds } from '../../api/data';
import { useSaveStatusKinds } from '../../api/dataChanges';
import { QueryResult } from '../../components/QueryResult';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';

const MEANINGS = [
  { value: 'runs', label: 'the clock runs' },
  { value: 'stands', label: 'the clock is paused' },
  { value: 'ends', label: 'ends the job' },
] as const;
type Meaning = (typeof MEANINGS)[number]['value'];

interface StatusKindsProps {
  readonly assetId: string;
  readonly name: string;
  /** Statuses that jobs of this desk have had. */
  readonly used: readonly string[];
}

/** What the statuses of a desk mean for the time of its jobs. */
export function StatusKinds({ assetId, name, used }: StatusKindsProps) {
  const kinds = useStatusKinds(assetId);
  const save = useSaveStatusKinds();
  return (
    <Section title={name}>
      <QueryResult query={kinds} reading="Loading statuses">
        {(known) => {
          const all = [...new Set([...known.map(({ status }) => status), ...used])];
          const kindOf = (status: string): StatusKind =>
            known.find((each) => each.status === status) ?? { status, stopsClock: false, endsJob: false };
          const set = (status: string, meaning: Meaning): void =>
            save.mutate({
              assetId,
              kinds: all.map((each) =>
                each === status
                  ? { status, stopsClock: meaning === 'stands', endsJob: meaning === 'ends' }
                  : kindOf(each),
              ),
            });
          return all.map((status) => {
            const { stopsClock, endsJob } = kindOf(status);
            return (
              <View key={status}>
                <Words as="rowTitle">{status}</Words>
                <WordRow
                  name={`Meaning of ${status}`}
                  options={MEANINGS}
                  chosen={endsJob ? 'ends' : stopsClock ? 'stands' : 'runs'}
                  onChoose={(meaning) => set(status, meaning)}
                />
              </View>
            );
          });
        }}
      </QueryResult>
    </Section>
  );
}
