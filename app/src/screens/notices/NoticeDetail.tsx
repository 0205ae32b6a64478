import { useRouter } from 'expo-router';
import { formatMoment, type Notice } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Fact } from '../../components/Fact';
import { Words } from '../../components/Words';
import { noticeState } from './noticeWords';

interface NoticeDetailProps {
  readonly notice: Notice;
  readonly zone: string;
  readonly now: number;
}

/** The words of a notice and its way to the person. */
export function NoticeDetail({ notice, zone, now }: NoticeDetailProps) {
  const router = useRouter();
  return (
    <>
      <Words as="bodyStrong">{notice.subject}</Words>
      <Words as="body">{notice.body}</Words>
      <Fact name="Written" text={formatMoment(notice.createdAt, zone, now)} />
      <Fact name="State" text={noticeState(notice, zone, now)} />
      {notice.sentTo && <Fact name="Sent to" text={notice.sentTo} />}
      {notice.caughtAt !== null && (
        <Fact name="Stand-in" text={`received it ${formatMoment(notice.caughtAt, zone, now)}`} />
      )}
      <Button label="Open what it is about" onPress={() => router.push(notice.address as '/alarms')} />
    </>
  );
}
