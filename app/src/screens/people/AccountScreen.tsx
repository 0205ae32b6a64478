import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { Account } from '@vivid-beacon/core';
import {
  useAccount,
  useChangeAccount,
  useDisableAccount,
  useDropSecondFactor,
  useNewLink,
  useRequireSecondFactor,
  useSignOutEverywhere,
  type AccountForm,
} from '../../api/people';
import { usePerson } from '../../api/session';
import { useTrailPages } from '../../api/trail';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { QueryResult } from '../../components/QueryResult';
import { Refusal } from '../../components/Refusal';
import { RemovalTray } from '../../components/RemovalTray';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { TrailList } from '../trail/TrailList';
import { AccountFields } from './AccountFields';
import { LinkBox } from './LinkBox';
import { accountStateWords } from './accountStateWords';

/** Hours for which a new link holds. */
const LINK_H = 72;

/** One person as administrators see them. */
export function AccountScreen({ accountId }: { readonly accountId: string }) {
  const router = useRouter();
  const query = useAccount(accountId);
  const now = useNow(60_000);
  return (
    <Page
      title={query.data?.name ?? 'Account'}
      under={query.data && accountStateWords(query.data, now)}
      onBack={() => router.navigate('/people')}
      backName="Back to people"
    >
      <QueryResult query={query} reading="Loading the account">
        {(account) => <AccountSheet key={JSON.stringify(account.rights)} account={account} />}
      </QueryResult>
    </Page>
  );
}

function AccountSheet({ account }: { readonly account: Account }) {
  const palette = usePalette();
  const own = usePerson()?.id === account.id;
  const change = useChangeAccount(account.id);
  const link = useNewLink(account.id);
  const signOut = useSignOutEverywhere(account.id);
  const demand = useRequireSecondFactor(account.id);
  const drop = useDropSecondFactor(account.id);
  const disable = useDisableAccount(account.id);
  const [asking, setAsking] = useState(false);
  const [form, setForm] = useState<AccountForm>({
    name: account.name,
    email: account.email,
    rights: account.rights,
  });
  const changes = useTrailPages({ search: '', subject: 'person', subjectId: account.id });
  const disabled = account.state === 'disabled';
  const same =
    form.name === account.name &&
    form.email === account.email &&
    JSON.stringify(form.rights) === JSON.stringify(account.rights);
  return (
    <>
      <View style={styles.body}>
        <AccountFields form={form} onChange={setForm} />
        <Refusal of={change} />
        <Button
          variant="primary"
          label={change.isPending ? 'Saving' : 'Save'}
          disabled={same || change.isPending}
          onPress={() => change.mutate(form)}
        />
      </View>
      <Section title="Signing in" closed={false}>
        <Words as="body" colour={palette.ink2}>
          A new link lets them choose another password; the one they have works until then.
        </Words>
        <View style={styles.tools}>
          <Button
            label={account.state === 'invited' ? 'New invitation' : 'Reset the password'}
            disabled={disabled || link.isPending}
            onPress={() => link.mutate(LINK_H)}
          />
          <Button
            label="Sign out everywhere"
            disabled={account.seenAt === null || signOut.isPending}
            onPress={() => signOut.mutate(undefined)}
          />
          {disabled ? (
            <Button label="Enable" disabled={disable.isPending} onPress={() => disable.mutate(false)} />
          ) : (
            <Button label="Disable" disabled={own || disable.isPending} onPress={() => setAsking(true)} />
          )}
        </View>
        <Words as="body" colour={palette.ink2}>
          {`Second factor ${account.secondFactor.on ? 'set up' : 'not set up'}${account.secondFactor.required ? ', required' : ''}.`}
        </Words>
        <View style={styles.tools}>
          <Button
            label={account.secondFactor.required ? 'Require it no longer' : 'Require a second factor'}
            disabled={demand.isPending}
            onPress={() => demand.mutate(!account.secondFactor.required)}
          />
          {account.secondFactor.on && (
            <Button
              label="Remove a lost one"
              disabled={drop.isPending}
              onPress={() => drop.mutate(undefined)}
            />
          )}
        </View>
        <Refusal of={demand} />
        <Refusal of={drop} />
        {link.data && <LinkBox link={link.data} name={account.name} />}
        <Refusal of={link} />
        <Refusal of={signOut} />
        <Refusal of={disable} />
      </Section>
      <Section title="Changes to this account" closed={false}>
        <TrailList pages={changes} searched="" />
      </Section>
      <RemovalTray
        title={`Disable ${account.name}`}
        open={asking}
        words={`${account.name} is signed out everywhere at once and cannot sign in. What they wrote keeps their name, and the account can be enabled again with the same rights.`}
        effects={[]}
        verb="Disable"
        pending={disable.isPending}
        error={disable.error?.message ?? null}
        onClose={() => setAsking(false)}
        onRemove={() =>
          void disable.mutateAsync(true).then(
            () => setAsking(false),
            () => undefined,
          )
        }
      />
    </>
  );
}

const styles = StyleSheet.create({
  body: { gap: 12, paddingVertical: 12 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
