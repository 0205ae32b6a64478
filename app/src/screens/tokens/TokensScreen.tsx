import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type PushToken } from '@vivid-beacon/core';
import { useRevokeToken } from '../../api/changes';
import { useTokens } from '../../api/queries';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { RemovalTray } from '../../components/RemovalTray';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { HeardList } from './HeardList';
import { NewToken } from './NewToken';
import { RuleForm } from './RuleForm';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

/** Push tokens: made here, shown once, revoked here. */
export function TokensScreen() {
  const palette = usePalette();
  const router = useRouter();
  const tokens = useTokens();
  const revoke = useRevokeToken();
  const now = useNow();
  const [revoking, setRevoking] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const [opened, setOpened] = useState<string | null>(null);
  const zone = deviceZone();
  return (
    <Page title="Push tokens" onBack={() => router.navigate('/data')} backName="Back to data">
      <Words as="body" colour={palette.ink2}>
        A device sends samples with POST to /api/samples and its token as bearer. The description of every
        endpoint is at /api/openapi.json.
      </Words>
      <NewToken />
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
});
