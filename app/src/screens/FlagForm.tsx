import { useState } from 'react';
import { yupResolver } from '@hookform/resolvers/yup';
import { DateTime } from 'luxon';
import { Controller, useForm } from 'react-hook-form';
import { View } from 'react-native';
import { flagSchema, type Alarm, type Person } from '@vivid-beacon/core';
import { useHandFlag } from '../api/changes';
import { usePeople } from '../api/queries';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { PickList } from '../components/PickList';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';

const DUE = [
  { value: '2', label: 'In 2 h' },
  { value: '8', label: 'This shift' },
  { value: '24', label: 'Tomorrow' },
  { value: '168', label: 'In a week' },
] as const;

/** Hands a flag to a person: what, to whom, until when. */
export function FlagForm({ alarm, onDone }: { readonly alarm: Alarm; readonly onDone: () => void }) {
  const palette = usePalette();
  const people = usePeople();
  const hand = useHandFlag();
  const now = useNow();
  const [hours, setHours] = useState<(typeof DUE)[number]['value']>('8');
  const { control, handleSubmit, setValue } = useForm({
    resolver: yupResolver(flagSchema),
    defaultValues: {
      title: `Check ${alarm.assetName}, ${alarm.metricName.toLowerCase()}`,
      note: '',
      toPersonId: '',
      alarmId: alarm.id,
      assetId: alarm.assetId,
      dueAt: dueIn(now, '8'),
    },
  });
  const submit = handleSubmit((flag) => hand.mutate(flag, { onSuccess: onDone }));
  return (
    <>
      <Controller
        control={control}
        name="title"
        render={({ field, fieldState }) => (
          <Field
            label="What is to be done"
            value={field.value}
            onChange={field.onChange}
            error={fieldState.error?.message}
          />
        )}
      />
      <Controller
        control={control}
        name="note"
        render={({ field, fieldState }) => (
          <Field
            label="Note"
            multiline
            value={field.value}
            onChange={field.onChange}
            error={fieldState.error?.message}
          />
        )}
      />
      <Words as="second" colour={palette.ink2}>
        Due
      </Words>
      <WordRow
        name="Due"
        options={DUE}
        chosen={hours}
        onChoose={(value) => {
          setHours(value);
          setValue('dueAt', dueIn(now, value));
        }}
      />
      <Controller
        control={control}
        name="toPersonId"
        render={({ field, fieldState }) => (
          <View>
            <Answer query={people} reading="Reading people">
              {(rows) => (
                <PickList
                  name="Person"
                  maxHeight={240}
                  options={takers(rows)}
                  chosen={field.value}
                  onChoose={field.onChange}
                />
              )}
            </Answer>
            {fieldState.error && (
              <View role="alert">
                <Words as="second" colour={palette.breachT}>
                  Choose a person
                </Words>
              </View>
            )}
          </View>
        )}
      />
      {hand.isError && (
        <View role="alert">
          <Words
            as="body"
            colour={palette.breachT}
          >{`Could not hand out the flag. ${hand.error.message}`}</Words>
        </View>
      )}
      <Button look="main" label="Hand out the flag" disabled={hand.isPending} onPress={() => void submit()} />
    </>
  );
}

function takers(people: readonly Person[]) {
  return people
    .filter(({ role }) => role !== 'viewer')
    .map(({ id, name, role }) => ({ value: id, label: name, detail: role }));
}

function dueIn(now: number, hours: string): number {
  return DateTime.fromMillis(now)
    .plus({ hours: Number(hours) })
    .startOf('hour')
    .toMillis();
}
