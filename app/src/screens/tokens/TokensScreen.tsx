import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { DAY_MS, formatMoment, type PushToken } from '@vivid-beacon/core';
import { useAddToken, useRevokeToken } from '../../api/changes';
import { usePlants } from '../../api/catalogue';
import { mayBuild, mayEverywhere } from '../../api/mayAct';
import { useTokens } from '../../api/queries';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Page } from '../../components/Page';
import { RemovalTray } from '../../components/RemovalTray';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { HeardList } from './HeardList';
import { RuleForm } from './RuleForm';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

/** Instead of the id of a plant. */
const EVERY = 'every';
const ENDS = [
  { value: 'none', label: 'when it is revoked' },
  { value: '30', label: 'in 30 days' },
  { value: '365', label: 'in 365 days' },
] as const;

/** Push tokens: made here, shown once, revoked here. */
export function TokensScreen() {
  const palette = usePalette();
  const router = useRouter();
  const tokens = useTokens();
  const add = useAddToken();
  const revoke = useRevokeToken();
  const now = useNow();
  const person = usePerson();
  const everywhere = mayEverywhere(person, 'analyst');
  const plants = (usePlants().data ?? []).filter(({ id }) => mayBuild(person, id));
  const [name, setName] = useState('');
  const [plant, setPlant] = useState<string | null>(null);
  const [days, setDays] = useState<(typeof ENDS)[number]['value']>('none');
  const plantId = plant ?? (everywhere ? EVERY : (plants[0]?.id ?? EVERY));
  const [revoking, setRevoking] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const [opened, setOpened] = useState<string | null>(null);
  const zone = deviceZone();
  return (
    <Page title="Push tokens" onBack={() => router.navigate('/data')} backName="Back to data">
      <Words as="body" colour={palette.ink2}>
        A device sends samples with POST to /api/samples and its token as bearer. The description of every
        endpoint is at /api/openapi.json.
      </Words>
      <View style={styles.form}>
        <Field label="Name of the sender" value={name} onChange={setName} error={add.error?.message} />
      </View>
      <Words as="second" colour={palette.ink2}>
        It writes at
      </Words>
      <WordRow
        name="Plant of the token"
        options={[
          ...(everywhere ? [{ value: EVERY, label: 'every plant' }] : []),
          ...plants.map(({ id, name: label }) => ({ value: id, label })),
        ]}
        chosen={plantId}
        onChoose={setPlant}
      />
      <Words as="second" colour={palette.ink2}>
        It ends
      </Words>
      <WordRow name="End of the token" options={ENDS} chosen={days} onChoose={setDays} />
      <View style={styles.form}>
        <Button
          label="Create a token"
          variant="primary"
          disabled={add.isPending}
          onPress={() =>
            add.mutate(
              {
                name,
                plantId: plantId === EVERY ? null : plantId,
                endsAt: days === 'none' ? null : now + Number(days) * DAY_MS,
              },
              { onSuccess: () => setName('') },
            )
          }
        />
      </View>
      {add.data && (
        <View
          style={[styles.token, { borderColor: palette.sea, backgroundColor: palette.water }]}
          role="status"
        >
          <Words as="bodyStrong">Copy it now; it is not shown again.</Words>
          <Words as="body">{add.data.token}</Words>
        </View>
      )}
      <Section title="In use" closed={false}>
        <QueryResult query={tokens} reading="Loading tokens">
          {(rows) => (
            <>
              {rows.map((token, i) => (
                <View key={token.id}>
                  <Row
                    title={token.name}
                    second={[
                      `created by ${token.createdBy}`,
                      token.lastUsedAt === null
                        ? 'never used'
                        : `last used ${formatMoment(token.lastUsedAt, zone, now)}`,
                      `writes at ${token.plantName ?? 'every plant'}${token.metrics === null ? '' : `, ${token.metrics} metrics only`}`,
                      token.endsAt !== null &&
                        (token.endsAt <= now ? 'has ended' : `ends ${formatMoment(token.endsAt, zone, now)}`),
                      token.waiting > 0 && `${token.waiting} series received but not mapped`,
                    ]
                      .filter(Boolean)
                      .join(', ')}
                    right={
                      <View style={styles.buttons}>
                        <Button
                          variant="quiet"
                          label={opened === token.id ? 'Close' : 'Series'}
                          name={`${opened === token.id ? 'Close' : 'Open'} the series of ${token.name}`}
                          onPress={() => setOpened(opened === token.id ? null : token.id)}
                        />
                        <Button
                          variant="quiet"
                          label="Revoke"
                          name={`Revoke ${token.name}`}
                          disabled={revoke.isPending}
                          onPress={() => setRevoking({ id: token.id, name: token.name })}
                        />
                      </View>
                    }
                    last={i === rows.length - 1}
                  />
                  {opened === token.id && <TokenDetail token={token} />}
                </View>
              ))}
            </>
          )}
        </QueryResult>
      </Section>
      <RemovalTray
        title={`Revoke ${revoking?.name ?? ''}`}
        open={revoking !== null}
        words="The device that sends with it is refused from now on. A revoked token does not come back: the device needs a new one."
        effects={[]}
        verb="Revoke"
        pending={revoke.isPending}
        error={revoke.error?.message ?? null}
        onClose={() => setRevoking(null)}
        onRemove={() => {
          // Guarded, because the compiler reads early what a closure reads without a question.
          if (revoking) revoke.mutate(revoking.id, { onSuccess: () => setRevoking(null) });
        }}
      />
    </Page>
  );
}

/** What was heard with a token and how its text is matched. */
function TokenDetail({ token }: { readonly token: PushToken }) {
  return (
    <>
      <HeardList tokenId={token.id} rule={token.rule} />
      <RuleForm key={JSON.stringify(token.rule)} tokenId={token.id} rule={token.rule} />
    </>
  );
}

const styles = StyleSheet.create({
  buttons: { flexDirection: 'row', gap: 8, flexWrap: 'wrap', justifyContent: 'flex-end' },
  form: { flexDirection: 'row', gap: 10, alignItems: 'flex-end', paddingVertical: 12, flexWrap: 'wrap' },
  token: { borderWidth: 1.5, borderRadius: 10, padding: 12, gap: 4 },
});
