import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type Account } from '@vivid-beacon/core';
import {
  useAccount,
  useChangeAccount,
  useDisableAccount,
  useDropSecondFactor,
  useForgetProvider,
  useNewLink,
  useRequireSecondFactor,
  useSignOutEverywhere,
  type AccountForm,
} from '../../api/people';
import { usePerson, useSession } from '../../api/session';
import { useTrailPages } from '../../api/trail';
import { AskedButton } from '../../components/AskedButton';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { QueryResult } from '../../components/QueryResult';
import { Refusal } from '../../components/Refusal';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';
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
  const unlink = useForgetProvider(account.id);
  const provider = useSession().data?.provider;
  const now = useNow(60_000);
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
            <AskedButton
              label="Disable"
              disabled={own}
              title={`Disable ${account.name}`}
              words={`${account.name} is signed out everywhere at once and cannot sign in. What they wrote keeps their name, and the account can be enabled again with the same rights.`}
              verb="Disable"
              change={{ ...disable, mutateAsync: () => disable.mutateAsync(true) }}
            />
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
            <AskedButton
              label="Remove a lost one"
              title={`Remove the second factor of ${account.name}`}
              words={`${account.name} signs in with the password alone until a new one is set up. Be sure it is they who ask.`}
              verb="Remove it"
              change={{ ...drop, mutateAsync: () => drop.mutateAsync(undefined) }}
            />
          )}
        </View>
        <Refusal of={demand} />
        {account.linkedAt !== null && (
          <>
            <Words as="body" colour={palette.ink2}>
              {`Signs in with ${provider ?? 'the provider'} since ${formatMoment(account.linkedAt, deviceZone(), now)}.`}
            </Words>
            <View style={styles.tools}>
              <AskedButton
                label="Forget their account there"
                title={`Forget the account of ${account.name}`}
                words="The next one there that has their address belongs to them. Until then they sign in with their password."
                verb="Forget it"
                change={{ ...unlink, mutateAsync: () => unlink.mutateAsync(undefined) }}
              />
            </View>
          </>
        )}
        {link.data && <LinkBox link={link.data} name={account.name} />}
        <Refusal of={link} />
        <Refusal of={signOut} />
        <Refusal of={disable} />
      </Section>
      <Section title="Changes to this account" closed={false}>
        <TrailList pages={changes} searched="" />
      </Section>
    </>
  );
}

const styles = StyleSheet.create({
  body: { gap: 12, paddingVertical: 12 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
