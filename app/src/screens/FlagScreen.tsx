import { useState } from 'react';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { FLAG_OUTCOMES, formatMoment, OUTCOME_WORDS, type Flag, type FlagOutcome } from '@vivid-beacon/core';
import { useCloseFlag } from '../api/changes';
import { useFlag } from '../api/queries';
import { usePerson } from '../api/session';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { Page } from '../components/Page';
import { PickList } from '../components/PickList';
import { Row } from '../components/Row';
import { Section } from '../components/Section';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { dueWords } from './dueWords';
import { mayAct } from './mayAct';

/** One flag: what is to be done, and closing it with an outcome. */
export function FlagScreen({ flagId }: { readonly flagId: string }) {
  const router = useRouter();
  const query = useFlag(flagId);
  const person = usePerson();
  const [closing, setClosing] = useState(false);
  const flag = query.data;
  const open = flag !== undefined && flag.closedAt === null;
  return (
    <Page
      title="Flag"
      onBack={() => router.navigate('/')}
      backName="Back to On watch"
      dock={
        open &&
        mayAct(person) && (
          <Button grow look="main" label="Close with an outcome" onPress={() => setClosing(true)} />
        )
      }
    >
      <Answer query={query} reading="Reading the flag">
        {(found) => <FlagSheet flag={found} />}
      </Answer>
      <Tray title="Close the flag" open={closing} onClose={() => setClosing(false)}>
        {closing && flag && <CloseForm flag={flag} onDone={() => setClosing(false)} />}
      </Tray>
    </Page>
  );
}

function FlagSheet({ flag }: { readonly flag: Flag }) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  const due = dueWords(flag.dueAt, now, flag.zone);
  const closed = flag.closedAt !== null;
  return (
    <>
      <Words as="pageTitle" heading={2}>
        {flag.title}
      </Words>
      <Words
        as="body"
        colour={palette.ink2}
      >{`${flag.assetName}. From ${flag.from.name} to ${flag.to.name}, ${formatMoment(flag.createdAt, flag.zone, now)}`}</Words>
      <Words as="rowTitle" colour={!closed && due.overdue ? palette.cautionT : palette.ink}>
        {closed ? 'Closed' : (due.overdue ?? due.words)}
      </Words>
      {flag.note !== '' && (
        <Section title="Note" closed={false}>
          <Words as="body">{flag.note}</Words>
        </Section>
      )}
      {closed && (
        <Section title="Outcome" closed={false}>
          <Words as="rowTitle">{OUTCOME_WORDS[flag.outcome!]}</Words>
          {flag.outcomeNote && <Words as="body">{flag.outcomeNote}</Words>}
          <Words as="second" colour={palette.ink2}>
            {formatMoment(flag.closedAt!, flag.zone, now)}
          </Words>
        </Section>
      )}
      {flag.alarmId && (
        <Section title="Evidence" closed={false}>
          <Row
            title="The alarm this came from"
            second="Trend, history and remarks"
            onPress={() => router.push(`/alarms/${flag.alarmId}`)}
            last
          />
        </Section>
      )}
    </>
  );
}

function CloseForm({ flag, onDone }: { readonly flag: Flag; readonly onDone: () => void }) {
  const palette = usePalette();
  const close = useCloseFlag();
  const [outcome, setOutcome] = useState<FlagOutcome | null>(null);
  const [note, setNote] = useState('');
  return (
    <>
      <PickList
        name="Outcome"
        options={FLAG_OUTCOMES.map((value) => ({ value, label: OUTCOME_WORDS[value] }))}
        chosen={outcome}
        onChoose={setOutcome}
      />
      <Field label="What was found and done" multiline value={note} onChange={setNote} />
      {close.isError && (
        <View role="alert">
          <Words
            as="body"
            colour={palette.breachT}
          >{`Could not close the flag. ${close.error.message}`}</Words>
        </View>
      )}
      <Button
        look="main"
        label="Close the flag"
        disabled={outcome === null || close.isPending}
        onPress={() => close.mutate({ id: flag.id, outcome: outcome!, note }, { onSuccess: onDone })}
      />
    </>
  );
}
