import { useState } from 'react';
import { useRouter } from 'expo-router';
import type { Notice, Outbox } from '@vivid-beacon/core';
import { mayBuild } from '../../api/mayAct';
import { useNoticeWish, useOutbox } from '../../api/notices';
import { usePerson } from '../../api/session';
import { Answer } from '../../components/Answer';
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
  const build = mayBuild(usePerson());
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
      under="What people are told, and how it reached them"
      onBack={() => router.navigate('/alarms')}
      backName="Back to alarms"
    >
      <Section title="How they reach you">
        <Answer query={wish} reading="Reading how notices reach you">
          {(mine) => (
            <Row
              title={wishWords(mine)}
              second={
                mine.quiet ? `Quiet from ${mine.quiet.from} to ${mine.quiet.to}, ${mine.zone}` : 'At any hour'
              }
              right={
                <Button
                  look="quiet"
                  label="Change"
                  name="Change how notices reach you"
                  onPress={() => setChanging(true)}
                />
              }
              last
            />
          )}
        </Answer>
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
        <Answer query={outbox} reading="Reading the outbox">
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
        </Answer>
      </Section>
      <Tray title="Notice" open={open !== null} onClose={() => setOpen(null)}>
        {open && <NoticeDetail notice={open} zone={zone} now={now} />}
      </Tray>
      <Tray title="How notices reach you" open={changing} onClose={() => setChanging(false)}>
        {changing && wish.data && <NoticeWishForm wish={wish.data} onDone={() => setChanging(false)} />}
      </Tray>
    </Page>
  );
}

function standInWords({ email, text }: Outbox['standIns']): string {
  const what = [email && 'E-mail', text && (email ? 'text messages' : 'Text messages')]
    .filter(Boolean)
    .join(' and ');
  if (!what) return 'They leave through the mail server and the text-message gateway that are set up.';
  return `${what} stay in this house: they go to stand-ins until a mail server and a gateway are set up.`;
}
