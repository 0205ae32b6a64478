import { useState } from 'react';
import { useRouter } from 'expo-router';
import { storedClockText, type Notice, type Outbox } from '@vivid-beacon/core';
import { mayEverywhere } from '../../api/mayAct';
import { useNoticeWish, useOutbox } from '../../api/notices';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { NoticeDetail } from './NoticeDetail';
import { noticeLine } from './noticeWords';
import { NoticeWishForm } from './NoticeWishForm';
import { wishWords } from './wishWords';

/** Notices that were sent or wait, and how they reach the person who looks. */
export function OutboxScreen() {
  const palette = usePalette();
  const router = useRouter();
  const build = mayEverywhere(usePerson(), 'analyst');
  const [of, setOf] = useState<'me' | 'all'>('me');
  const [open, setOpen] = useState<Notice | null>(null);
  const [changing, setChanging] = useState(false);
  const outbox = useOutbox(of);
  const wish = useNoticeWish();
  const now = useNow();
  const zone = wish.data?.zone ?? 'UTC';
  return (
    <Page
      title="Notices"
      under="Notices to people, and how they were delivered"
      onBack={() => router.navigate('/alarms')}
      backName="Back to alarms"
    >
      <Section title="How you are notified">
        <QueryResult query={wish} reading="Loading how you receive notices">
          {(mine) => (
            <Row
              title={wishWords(mine)}
              second={
                mine.quiet
                  ? `Quiet from ${storedClockText(mine.quiet.from)} to ${storedClockText(mine.quiet.to)}, ${mine.zone}`
                  : 'At any hour'
              }
              right={
                <Button
                  variant="quiet"
                  label="Change"
                  name="Change how you receive notices"
                  onPress={() => setChanging(true)}
                />
              }
              last
            />
          )}
        </QueryResult>
      </Section>
      <Section title="Outbox" aside={outbox.data ? String(outbox.data.notices.length) : ''} closed={false}>
        {build && (
          <WordRow
            name="Whose notices"
            options={[
              { value: 'me', label: 'To me' },
              { value: 'all', label: 'To everybody' },
            ]}
            chosen={of}
            onChoose={setOf}
          />
        )}
        <QueryResult query={outbox} reading="Loading the outbox">
          {({ notices, standIns }) => (
            <>
              <Words as="second" colour={palette.ink2}>
                {standInWords(standIns)}
              </Words>
              {notices.map((notice, i) => (
                <Row
                  key={notice.id}
                  title={notice.subject}
                  second={noticeLine(notice, zone, now)}
                  onPress={() => setOpen(notice)}
                  last={i === notices.length - 1}
                />
              ))}
              {notices.length === 0 && <Words as="body">No notices yet.</Words>}
            </>
          )}
        </QueryResult>
      </Section>
      <Tray title="Notice" open={open !== null} onClose={() => setOpen(null)}>
        {open && <NoticeDetail notice={open} zone={zone} now={now} />}
      </Tray>
      <Tray title="How you receive notices" open={changing} onClose={() => setChanging(false)}>
        {changing && wish.data && <NoticeWishForm wish={wish.data} onDone={() => setChanging(false)} />}
      </Tray>
    </Page>
  );
}

function standInWords({ email, text }: Outbox['standIns']): string {
  const what = [email && 'E-mail', text && (email ? 'text messages' : 'Text messages')]
    .filter(Boolean)
    .join(' and ');
  if (!what) return 'They are sent through the configured mail server and text-message gateway.';
  return `${what} ${what === 'E-mail' ? 'is' : 'are'} kept here until a mail server and a text-message gateway are set up.`;
}
