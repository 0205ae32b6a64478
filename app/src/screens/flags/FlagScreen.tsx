import { useState } from 'react';
import { useRouter } from 'expo-router';
import {
  FLAG_STATUS_WORDS,
  formatLength,
  MINUTE_MS,
  OUTCOME_WORDS,
  type Flag,
  type FlagEvent,
} from '@vivid-beacon/core';
import { useCommentFlag, useFlag, useReopenFlag, useTakeFlag } from '../../api/flags';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { Refusal } from '../../components/Refusal';
import { RemarkField } from '../../components/RemarkField';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { dueWords } from '../dueWords';
import { mayAct, mayBuild } from '../../api/mayAct';
import { CloseFlagForm } from './CloseFlagForm';
import { FlagEvidenceSection } from './FlagEvidenceSection';
import { flagEventWords } from './flagWords';
import { HandOnForm } from './HandOnForm';
import { siteMoment } from '../siteMoment';

/** One flag: what to do and why, its history, and its actions. */
export function FlagScreen({ flagId }: { readonly flagId: string }) {
  const router = useRouter();
  const query = useFlag(flagId);
  const person = usePerson();
  const take = useTakeFlag();
  const reopen = useReopenFlag();
  const [doing, setDoing] = useState<'close' | 'handOn' | null>(null);
  const flag = query.data?.flag;
  const open = flag !== undefined && flag.closedAt === null;
  // Its taker, its giver, or an analyst; the server checks it too.
  const theirs =
    flag !== undefined &&
    mayAct(person, flag.plantId) &&
    (mayBuild(person, flag.plantId) || flag.to.id === person!.id || flag.from.id === person!.id);
  const done = (): void => setDoing(null);
  return (
    <Page
      title="Flag"
      onBack={() => router.navigate('/flags')}
      backName="Back to flags"
      dock={
        theirs &&
        (open ? (
          <>
            {flag.status === 'open' && (
              <Button
                grow
                label="Take in hand"
                disabled={take.isPending}
                onPress={() => take.mutate(flag.id)}
              />
            )}
            <Button grow label="Hand on" onPress={() => setDoing('handOn')} />
            <Button
              grow
              variant="primary"
              label="Close"
              name="Close with an outcome"
              onPress={() => setDoing('close')}
            />
          </>
        ) : (
          <Button
            grow
            label="Open it again"
            disabled={reopen.isPending}
            onPress={() => reopen.mutate(flag.id)}
          />
        ))
      }
    >
      <Refusal of={take} />
      <Refusal of={reopen} />
      <QueryResult query={query} reading="Loading the flag">
        {(found) => <FlagSheet {...found} mayComment={mayAct(person, found.flag.plantId)} />}
      </QueryResult>
      {flag && (
        <>
          <Tray title="Close the flag" open={doing === 'close'} onClose={done}>
            {doing === 'close' && <CloseFlagForm flag={flag} onDone={done} />}
          </Tray>
          <Tray title="Hand the flag on" open={doing === 'handOn'} onClose={done}>
            {doing === 'handOn' && <HandOnForm flag={flag} onDone={done} />}
          </Tray>
        </>
      )}
    </Page>
  );
}

interface FlagSheetProps {
  readonly flag: Flag;
  readonly events: readonly FlagEvent[];
  readonly mayComment: boolean;
}

function FlagSheet({ flag, events, mayComment }: FlagSheetProps) {
  const palette = usePalette();
  const now = useNow();
  const comment = useCommentFlag();
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
      >{`${flag.place}. From ${flag.from.name} to ${flag.to.name}, ${siteMoment(flag.createdAt, flag.zone, now)}`}</Words>
      <Words as="rowTitle" colour={!closed && due.overdue ? palette.cautionT : palette.ink}>
        {closed
          ? 'Closed'
          : `${FLAG_STATUS_WORDS[flag.status]}, ${priorityWords(flag)}${due.overdue?.toLowerCase() ?? due.words}`}
      </Words>
      {flag.note !== '' && (
        <Section title="Note" closed={false}>
          <Words as="body">{flag.note}</Words>
        </Section>
      )}
      {closed && <Outcome flag={flag} now={now} />}
      <FlagEvidenceSection flag={flag} now={now} />
      <Section title="History" aside={events.length === 1 ? '1 entry' : `${events.length} entries`}>
        {events.map((event, i) => {
          const { title, detail } = flagEventWords(event, flag.zone, now);
          return <Row key={event.id} title={title} second={detail} last={i === events.length - 1} />;
        })}
        {mayComment && (
          <RemarkField
            label="Add a comment"
            pending={comment.isPending}
            error={comment.error}
            onAdd={(remark, clear) => comment.mutate({ id: flag.id, remark }, { onSuccess: clear })}
          />
        )}
      </Section>
    </>
  );
}

function priorityWords({ priority }: Flag): string {
  return priority === 'normal' ? '' : `${priority} priority, `;
}

function Outcome({ flag, now }: { readonly flag: Flag; readonly now: number }) {
  const palette = usePalette();
  const facts = [
    FLAG_STATUS_WORDS[flag.status],
    flag.cause && `cause: ${flag.cause}`,
    flag.minutesSpent !== null && `${formatLength(flag.minutesSpent * MINUTE_MS)} spent`,
    siteMoment(flag.closedAt!, flag.zone, now),
  ];
  return (
    <Section title="Outcome" closed={false}>
      <Words as="rowTitle">{OUTCOME_WORDS[flag.outcome!]}</Words>
      {flag.outcomeNote && <Words as="body">{flag.outcomeNote}</Words>}
      <Words as="second" colour={palette.ink2}>
        {facts.filter(Boolean).join(' · ')}
      </Words>
    </Section>
  );
}
