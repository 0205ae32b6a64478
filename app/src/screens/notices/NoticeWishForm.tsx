import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { noticeWishSchema, type NoticeWish, type OwnNoticeWish } from '@vivid-beacon/core';
import { useSetNoticeWish } from '../../api/notices';
import { Button } from '../../components/Button';
import { ClockField } from '../../components/ClockField';
import { Field } from '../../components/Field';
import { Refusal } from '../../components/Refusal';
import { ToggleRow } from '../../components/ToggleRow';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface NoticeWishFormProps {
  readonly wish: OwnNoticeWish;
  readonly onDone: () => void;
}

const NIGHT = { from: '22:00', to: '06:00' };

/** By e-mail, by text message or both, and the hours in which only high-priority notices come. */
export function NoticeWishForm({ wish, onDone }: NoticeWishFormProps) {
  const palette = usePalette();
  const set = useSetNoticeWish();
  const { email, ...before } = wish;
  const [draft, setDraft] = useState<NoticeWish>(before);
  const change = (part: Partial<NoticeWish>): void => setDraft((last) => ({ ...last, ...part }));
  const given = { ...draft, phone: draft.phone?.trim() || null };
  const wrong = problemOf(given);
  const ways = [...(draft.byEmail ? ['email'] : []), ...(draft.byText ? ['text'] : [])];
  return (
    <>
      <ToggleRow
        name="Ways"
        options={[
          { value: 'email', label: `E-mail to ${email}` },
          { value: 'text', label: 'Text message' },
        ]}
        chosen={ways}
        onChange={(chosen) => change({ byEmail: chosen.includes('email'), byText: chosen.includes('text') })}
      />
      {draft.byText && (
        <Field
          label="Number for text messages"
          value={draft.phone ?? ''}
          inputMode="tel"
          autoComplete="tel"
          placeholder="+44 1632 960123"
          onChange={(phone) => change({ phone })}
        />
      )}
      <WordRow
        name="Quiet hours"
        options={[
          { value: 'none', label: 'At any hour' },
          { value: 'quiet', label: 'Quiet hours' },
        ]}
        chosen={draft.quiet ? 'quiet' : 'none'}
        onChoose={(value) => change({ quiet: value === 'quiet' ? (wish.quiet ?? NIGHT) : null })}
      />
      {draft.quiet && (
        <>
          <View style={styles.clocks}>
            <ClockField
              label="Quiet from"
              value={draft.quiet.from}
              onChange={(from) => change({ quiet: { ...draft.quiet!, from } })}
            />
            <ClockField
              label="to"
              value={draft.quiet.to}
              onChange={(to) => change({ quiet: { ...draft.quiet!, to } })}
            />
          </View>
          <Field
            label="Time zone of the quiet hours"
            value={draft.zone}
            onChange={(zone) => change({ zone })}
          />
          <Words as="second" colour={palette.ink2}>
            High-priority notices still come at once; the others wait and arrive together as one.
          </Words>
        </>
      )}
      {wrong && (
        <Words as="second" colour={palette.breachT}>
          {wrong}
        </Words>
      )}
      <Refusal of={set} />
      <Button
        variant="primary"
        label="Save"
        disabled={wrong !== null || set.isPending}
        onPress={() => set.mutate(given, { onSuccess: onDone })}
      />
    </>
  );
}

function problemOf(wish: NoticeWish): string | null {
  try {
    noticeWishSchema.validateSync(wish);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

const styles = StyleSheet.create({ clocks: { flexDirection: 'row', gap: 12 } });
