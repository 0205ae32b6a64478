import { useRouter, type Href } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import type { FirstSteps } from '@vivid-beacon/core';
import { usePutStepsAway } from '../../api/firstSteps';
import { mayEverywhere } from '../../api/mayAct';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { CheckIcon } from '../../components/icons';
import { Refusal } from '../../components/Refusal';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { usePalette } from '../../theme/useTheme';

interface Step {
  readonly key: Exclude<keyof FirstSteps, 'away'>;
  readonly title: string;
  readonly how: string;
  readonly href: Href;
}

/** In the order in which each needs the one before. */
const STEPS: readonly Step[] = [
  {
    key: 'plant',
    title: 'A plant and its time zone',
    how: 'Under Data, or with the first file: days and shifts follow its clock.',
    href: '/data',
  },
  {
    key: 'data',
    title: 'A file or a feed',
    how: 'A CSV or workbook, or a sender with a push token.',
    href: '/data/intake',
  },
  { key: 'board', title: 'A board', how: 'One sheet of gauges, lamps, figures and trends.', href: '/boards' },
  {
    key: 'band',
    title: 'A target band',
    how: 'On a readout, or in an indicator: what is Clear, Caution and Breach.',
    href: '/boards',
  },
  {
    key: 'rule',
    title: 'An alarm rule',
    how: 'Rehearsed on the past before it is put in force.',
    href: '/alarms/rules/new',
  },
];

/** Only administrators of every plant can invite. */
const PEOPLE: Step = {
  key: 'people',
  title: 'People',
  how: 'Invited by a link, with a role at every plant or at some.',
  href: '/people/new',
};

export const isSetUp = (steps: FirstSteps): boolean => STEPS.every(({ key }) => steps[key]);

/** What to set up first, in order, each ticked once it is there; put away for good when wanted. */
export function FirstStepsSection({ steps }: { readonly steps: FirstSteps }) {
  const palette = usePalette();
  const router = useRouter();
  const putAway = usePutStepsAway();
  const own = mayEverywhere(usePerson(), 'administrator') ? [...STEPS, PEOPLE] : STEPS;
  const done = own.filter(({ key }) => steps[key]).length;
  return (
    <Section title="First steps" aside={`${done} of ${own.length}`}>
      {own.map(({ key, title, how, href }, i) => (
        <Row
          key={key}
          title={steps[key] ? `${title}, done` : title}
          second={how}
          left={
            <View style={[styles.box, { borderColor: palette.ink }]}>
              {steps[key] && <CheckIcon size={18} color={palette.ink} strokeWidth={2.5} />}
            </View>
          }
          onPress={() => router.push(href)}
          last={i === own.length - 1}
        />
      ))}
      <Refusal of={putAway} />
      <View style={styles.away}>
        <Button variant="quiet" label="Put these steps away" onPress={() => putAway.mutate(true)} />
      </View>
    </Section>
  );
}

const styles = StyleSheet.create({
  box: {
    width: 24,
    height: 24,
    borderWidth: 1.5,
    borderRadius: 5,
    alignItems: 'center',
    justifyContent: 'center',
  },
  away: { alignItems: 'flex-start' },
});
