import { useState } from 'react';
import { View } from 'react-native';
import { HOUR_MS } from '@vivid-beacon/core';
import { useSetRuleAside } from '../api/changes';
import { usePerson } from '../api/session';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { mayBuild } from '../api/mayAct';

const FOR_HOURS = ['1', '4', '8', '24'] as const;

/** Shelves a rule for some hours with a reason; analysts may also take it out of service. */
export function SetAsideForm({
  ruleId,
  metricId = null,
  ruleName,
  onDone,
}: {
  readonly ruleId: string;
  /** Only on this metric of a rule over a scope; null = on all. */
  readonly metricId?: string | null;
  readonly ruleName: string;
  readonly onDone: () => void;
}) {
  const palette = usePalette();
  const build = mayBuild(usePerson());
  const set = useSetRuleAside();
  const [how, setHow] = useState<string>('4');
  const [reason, setReason] = useState('');
  const out = how === 'out';
  return (
    <>
      <Words as="body" colour={palette.ink2}>
        {`${ruleName}: alarms go on being recorded, and nobody is notified.`}
      </Words>
      <WordRow
        name="For how long"
        options={[
          ...FOR_HOURS.map((value) => ({
            value: value as string,
            label: value === '1' ? '1 hour' : `${value} hours`,
          })),
          ...(build ? [{ value: 'out', label: 'Out of service' }] : []),
        ]}
        chosen={how}
        onChoose={setHow}
      />
      <Field label="Reason" value={reason} onChange={setReason} placeholder="what is being done" multiline />
      {set.isError && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>{`Could not set it aside. ${set.error.message}`}</Words>
        </View>
      )}
      <Button
        variant="primary"
        label={out ? 'Take out of service' : 'Shelve'}
        disabled={reason.trim() === '' || set.isPending}
        onPress={() =>
          set.mutate(
            {
              id: ruleId,
              metricId,
              kind: out ? 'outOfService' : 'shelved',
              forMs: out ? null : Number(how) * HOUR_MS,
              reason,
            },
            { onSuccess: onDone },
          )
        }
      />
    </>
  );
}
