import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type InvitationLink } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

/** A link to choose a password, to be handed over: it is shown once. */
export function LinkBox({ link, name }: { readonly link: InvitationLink; readonly name: string }) {
  const palette = usePalette();
  const [copied, setCopied] = useState(false);
  const address = `${window.location.origin}${link.path}`;
  const zone = deviceZone();
  return (
    <View role="status" style={[styles.box, { borderColor: palette.sea, backgroundColor: palette.water }]}>
      <Words as="bodyStrong">{`Hand this link to ${name}; it is not shown again.`}</Words>
      <Words as="body">{address}</Words>
      <Words as="second" colour={palette.ink2}>
        {`It works once, until ${formatMoment(link.endsAt, zone)} (${zone}). Whoever has it can sign in as ${name}.`}
      </Words>
      <View style={styles.start}>
        <Button
          label={copied ? 'Copied' : 'Copy the link'}
          onPress={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { borderWidth: 1.5, borderRadius: 10, padding: 12, gap: 6 },
  start: { alignItems: 'flex-start' },
});
