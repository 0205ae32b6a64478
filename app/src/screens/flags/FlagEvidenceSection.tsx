import { useRouter, type Href } from 'expo-router';
import { formatWindow, type Flag } from '@vivid-beacon/core';
import { Fact } from '../../components/Fact';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { siteMoment } from '../siteMoment';

/** What was seen when the flag was handed out, as it was then, and the way to the same view. */
export function FlagEvidenceSection({ flag, now }: { readonly flag: Flag; readonly now: number }) {
  const palette = usePalette();
  const router = useRouter();
  const { evidence, zone } = flag;
  if (!evidence) return null;
  return (
    <Section title="Evidence" aside={`as on ${siteMoment(flag.createdAt, zone, now)}`}>
      <Words as="rowTitle">{evidence.title}</Words>
      {evidence.window && (
        <Words as="second" colour={palette.ink2}>
          {formatWindow(evidence.window.start, evidence.window.end, zone, now)}
        </Words>
      )}
      {evidence.numbers.map(({ name, text }, i) => (
        <Fact key={i} name={name} text={text} />
      ))}
      {evidence.address !== '' && (
        <Row
          title={flag.alarmId ? 'The alarm this came from' : 'The view this came from'}
          second="As the data is now: corrected samples change it, the numbers above stay"
          onPress={() => router.push(evidence.address as Href)}
          last
        />
      )}
    </Section>
  );
}
