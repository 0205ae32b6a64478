import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { AccountForm } from '../../api/people';
import { useInvite } from '../../api/people';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { Refusal } from '../../components/Refusal';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { AccountFields } from './AccountFields';
import { LinkBox } from './LinkBox';

const SIGNED_OUT: AccountForm = { name: '', email: '', rights: { everywhere: null, plants: {} } };
const LIVES = [
  { value: '24', label: '1 day' },
  { value: '72', label: '3 days' },
  { value: '168', label: '7 days' },
] as const;

/** Invites somebody: who, what they may do where, and for how long the link holds. */
export function InviteScreen() {
  const router = useRouter();
  const palette = usePalette();
  const invite = useInvite();
  const [form, setForm] = useState(SIGNED_OUT);
  const [hours, setHours] = useState<(typeof LIVES)[number]['value']>('72');
  return (
    <Page title="Invite somebody" onBack={() => router.navigate('/people')} backName="Back to people">
      {invite.data ? (
        <View style={styles.body}>
          <LinkBox link={invite.data.link} name={form.name} />
          <Button label="To the account" onPress={() => router.replace(`/people/${invite.data.id}`)} />
        </View>
      ) : (
        <View style={styles.body}>
          <AccountFields form={form} onChange={setForm} />
          <Words as="second" colour={palette.ink2}>
            The link to choose a password holds for
          </Words>
          <WordRow name="The link holds for" options={LIVES} chosen={hours} onChoose={setHours} />
          <Refusal of={invite} />
          <Button
            variant="primary"
            label={invite.isPending ? 'Making the link' : 'Make the link'}
            disabled={invite.isPending}
            onPress={() => invite.mutate({ ...form, holdsForH: Number(hours) })}
          />
        </View>
      )}
    </Page>
  );
}

const styles = StyleSheet.create({ body: { gap: 12, paddingVertical: 12, alignItems: 'stretch' } });
