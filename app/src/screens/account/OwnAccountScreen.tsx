import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type OwnAccount } from '@vivid-beacon/core';
import { useAssetsById } from '../../api/catalogue';
import { mayEverywhere } from '../../api/mayAct';
import { useEndSession, useOwnAccount, useChangeOwn } from '../../api/people';
import { usePerson, useSignOut } from '../../api/session';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Page } from '../../components/Page';
import { QueryResult } from '../../components/QueryResult';
import { Refusal } from '../../components/Refusal';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { ThemeToggle } from '../../components/ThemeToggle';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';
import { rightsWords } from '../people/rightsWords';
import { agentWords } from './agentWords';
import { FormatsSection } from './FormatsSection';
import { PasswordForm } from './PasswordForm';
import { SecondFactorSection } from './SecondFactorSection';
import { StartScreenPick } from './StartScreenPick';

/** A person's own account: name, password, devices; from here administrators reach people and the trail. */
export function OwnAccountScreen() {
  const router = useRouter();
  const query = useOwnAccount();
  const person = usePerson();
  const signOut = useSignOut();
  const manages = mayEverywhere(person, 'administrator');
  return (
    <Page
      title="Your account"
      under={query.data?.email}
      onBack={() => router.navigate('/')}
      backName="Back to On watch"
      tools={<Button label="Sign out" disabled={signOut.isPending} onPress={() => signOut.mutate()} />}
    >
      {manages && (
        <Section title="For administrators">
          <Row
            title="People"
            second="Invite, rights by plant, disable, sign out"
            onPress={() => router.push('/people')}
          />
          <Row
            title="Trail"
            second="Who changed what, when and from where"
            onPress={() => router.push('/trail')}
            last
          />
        </Section>
      )}
      <QueryResult query={query} reading="Loading your account">
        {(account) => <AccountSheet key={account.name} account={account} />}
      </QueryResult>
    </Page>
  );
}

function AccountSheet({ account }: { readonly account: OwnAccount }) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow(60_000);
  const change = useChangeOwn();
  const end = useEndSession();
  const [name, setName] = useState(account.name);
  const own = { name: account.name, startAt: account.startAt, formats: account.formats };
  const { byId } = useAssetsById(Object.keys(account.rights.plants));
  const zone = deviceZone();
  return (
    <>
      <Section title="You">
        <View style={styles.line}>
          <Field label="Name" autoComplete="name" value={name} onChange={setName} />
          <Button
            label="Save"
            name="Save the name"
            disabled={name.trim() === '' || name === account.name || change.isPending}
            onPress={() => change.mutate({ ...own, name })}
          />
        </View>
        <Refusal of={change} />
        <Words as="body" colour={palette.ink2}>
          {`Your rights: ${rightsWords(account.rights, (id) => byId.get(id)?.name)}.`}
        </Words>
        <Words as="second" colour={palette.ink2}>
          Where you begin when you open Vivid Beacon
        </Words>
        <StartScreenPick
          startAt={account.startAt}
          onChoose={(startAt) => change.mutate({ ...own, startAt })}
        />
        <View style={styles.row}>
          <Button variant="quiet" label="How you are told" onPress={() => router.push('/alarms/notices')} />
          <ThemeToggle />
        </View>
      </Section>
      <FormatsSection
        formats={account.formats}
        onChoose={(formats) => {
          // Whatever is drawn already was written in the formats of before.
          change.mutate({ ...own, formats }, { onSuccess: () => window.location.reload() });
        }}
      />
      <Section title="Password">
        <PasswordForm />
      </Section>
      <SecondFactorSection secondFactor={account.secondFactor} recoveryLeft={account.recoveryLeft} />
      <Section title="Where you are signed in" aside={String(account.sessions.length)} closed={false}>
        {account.sessions.map(({ id, agent, address, startedAt, seenAt, current }, i) => (
          <Row
            key={id}
            title={current ? `${agentWords(agent)}, this device` : agentWords(agent)}
            second={`since ${formatMoment(startedAt, zone, now)}, last used ${formatMoment(seenAt, zone, now)}, from ${address}`}
            right={
              current ? undefined : (
                <Button
                  variant="quiet"
                  label="Sign out"
                  name={`Sign out ${agentWords(agent)}, since ${formatMoment(startedAt, zone, now)}`}
                  disabled={end.isPending}
                  onPress={() => end.mutate(id)}
                />
              )
            }
            last={i === account.sessions.length - 1}
          />
        ))}
        {account.sessions.length > 1 && (
          <View style={styles.start}>
            <Button label="Sign out all others" disabled={end.isPending} onPress={() => end.mutate(null)} />
          </View>
        )}
        <Refusal of={end} />
      </Section>
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 8, paddingTop: 6 },
  line: { flexDirection: 'row', alignItems: 'flex-end', gap: 10, paddingVertical: 8 },
  start: { alignItems: 'flex-start', paddingVertical: 6 },
});
