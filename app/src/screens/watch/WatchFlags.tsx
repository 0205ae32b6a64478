import { useRouter } from 'expo-router';
import { byUrgency, formatNumber, type Flag } from '@vivid-beacon/core';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { FlagRow } from '../flags/FlagRow';

/** Open flags whose time has not come yet, one's own first, then by urgency; late ones stand among what needs a person. */
export function WatchFlags({
  flags: open,
  count,
  now,
}: {
  readonly flags: readonly Flag[];
  /** Number due later; the list is limited. */
  readonly count: number;
  readonly now: number;
}) {
  const palette = usePalette();
  const router = useRouter();
  const me = usePerson()?.id;
  const flags = open.filter(({ dueAt }) => dueAt >= now);
  const urgent = byUrgency(now);
  const sorted = [...flags].sort((a, b) => Number(b.to.id === me) - Number(a.to.id === me) || urgent(a, b));
  return (
    <Section title="Flags due later" aside={formatNumber(count, 0)}>
      {sorted.map((flag, i) => (
        <FlagRow key={flag.id} flag={flag} now={now} last={i === flags.length - 1} />
      ))}
      {flags.length === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          No flag is due later.
        </Words>
      )}
      <Button variant="quiet" label="All flags" onPress={() => router.push('/flags')} />
    </Section>
  );
}
