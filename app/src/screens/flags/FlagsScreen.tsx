import { useState } from 'react';
import { useRouter } from 'expo-router';
import { byUrgency, type Flag } from '@vivid-beacon/core';
import { useFlags } from '../../api/flags';
import { usePerson } from '../../api/session';
import { Answer } from '../../components/Answer';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { mayBuild } from '../../api/mayAct';
import { CauseList } from './CauseList';
import { FlagRow } from './FlagRow';

const LISTS = [
  { value: 'mine', label: 'Mine' },
  { value: 'given', label: 'Given out by me' },
  { value: 'all', label: 'Everybody’s' },
  { value: 'closed', label: 'Closed' },
] as const;
type List = (typeof LISTS)[number]['value'];

const NONE: Readonly<Record<List, string>> = {
  mine: 'No flag waits for you.',
  given: 'No flag you handed out is open.',
  all: 'No open flags.',
  closed: 'No flag has been closed yet.',
};

/** Flags by person: what waits for me, what I handed out, all of them, and those that are closed. */
export function FlagsScreen() {
  const router = useRouter();
  const person = usePerson();
  const now = useNow(60_000);
  const [list, setList] = useState<List>('mine');
  const [causes, setCauses] = useState(false);
  const query = useFlags(list === 'closed' ? 'closed' : 'open');
  const within = ({ from, to }: Flag): boolean =>
    list === 'mine' ? to.id === person?.id : list === 'given' ? from.id === person?.id : true;
  return (
    <Page
      title="Flags"
      onBack={() => router.navigate('/')}
      backName="Back to On watch"
      tools={mayBuild(person) && <Button label="Causes" onPress={() => setCauses(true)} />}
    >
      <WordRow name="Which flags" options={LISTS} chosen={list} onChoose={setList} />
      <Answer query={query} reading="Reading flags">
        {(all) => {
          const flags = all.filter(within);
          if (list !== 'closed') flags.sort(byUrgency(now));
          return (
            <Section title={list === 'closed' ? 'Closed' : 'Open'} aside={String(flags.length)}>
              {flags.map((flag, i) => (
                <FlagRow key={flag.id} flag={flag} now={now} last={i === flags.length - 1} />
              ))}
              {flags.length === 0 && <Words as="body">{NONE[list]}</Words>}
            </Section>
          );
        }}
      </Answer>
      <Tray title="Causes" open={causes} onClose={() => setCauses(false)}>
        {causes && <CauseList />}
      </Tray>
    </Page>
  );
}
