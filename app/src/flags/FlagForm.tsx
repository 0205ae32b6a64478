import { useState } from 'react';
import { yupResolver } from '@hookform/resolvers/yup';
import { DateTime } from 'luxon';
import { Controller, useForm } from 'react-hook-form';
import { View } from 'react-native';
import { flagSchema, type FlagEvidence, type FlagKind, type FlagPriority } from '@vivid-beacon/core';
import { useHandFlag } from '../api/flags';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { Refusal } from '../components/Refusal';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { PersonPick } from '../assets/PersonPick';

const DUE = [
  { value: '2', label: 'In 2 h' },
  { value: '8', label: 'This shift' },
  { value: '24', label: 'Tomorrow' },
  { value: '168', label: 'In a week' },
] as const;

const PRIORITIES = [
  { value: 'high', label: 'High' },
  { value: 'normal', label: 'Normal' },
  { value: 'low', label: 'Low' },
] as const;

const KINDS = [
  { value: 'breach', label: 'Breach' },
  { value: 'loss', label: 'Loss' },
  { value: 'remark', label: 'Remark' },
] as const;

/** What a flag is handed out for. */
export interface FlagSubject {
  readonly title: string;
  readonly kind: FlagKind;
  readonly assetId: string;
  readonly metricId: string | null;
  readonly alarmId: string | null;
  /** null = the server keeps what the alarm shows. */
  readonly evidence: FlagEvidence | null;
}

interface FlagFormProps {
  readonly subject: FlagSubject;
  readonly onDone: () => void;
}

/** Hands a flag to a person: what, how urgent, to whom, until when. */
export function FlagForm({ subject, onDone }: FlagFormProps) {
  const palette = usePalette();
  const hand = useHandFlag();
  const { evidence, ...about } = subject;
  const now = useNow();
  const [hours, setHours] = useState<(typeof DUE)[number]['value']>('8');
  const { control, handleSubmit, setValue } = useForm({
    resolver: yupResolver(flagSchema),
    defaultValues: {
      ...about,
      evidence: null,
      note: '',
      priority: 'normal' as FlagPriority,
      toPersonId: '',
      dueAt: dueIn(now, '8'),
    },
  });
  const submit = handleSubmit((flag) => hand.mutate({ ...flag, evidence }, { onSuccess: onDone }));
  return (
    <>
      <Controller
        control={control}
        name="title"
        render={({ field, fieldState }) => (
          <Field
            label="What to do"
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
      {subject.alarmId === null && (
        <>
          <Words as="second" colour={palette.ink2}>
            What it is about
          </Words>
          <Controller
            control={control}
            name="kind"
            render={({ field }) => (
              <WordRow
                name="What it is about"
                options={KINDS}
                chosen={field.value}
                onChoose={field.onChange}
              />
            )}
          />
        </>
      )}
      <Words as="second" colour={palette.ink2}>
        Priority
      </Words>
      <Controller
        control={control}
        name="priority"
        render={({ field }) => (
          <WordRow name="Priority" options={PRIORITIES} chosen={field.value} onChoose={field.onChange} />
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
            <PersonPick
              ask={{ least: 'operator', assetId: subject.assetId }}
              chosen={field.value}
              onChoose={field.onChange}
            />
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
      <Refusal of={hand} />
      <Button
        variant="primary"
        label="Hand out the flag"
        disabled={hand.isPending}
        onPress={() => void submit()}
      />
    </>
  );
}

function dueIn(now: number, hours: string): number {
  return DateTime.fromMillis(now)
    .plus({ hours: Number(hours) })
    .startOf('hour')
    .toMillis();
}
