export const NOTICE_CHANNELS = ['email', 'text'] as const;
export type NoticeChannel = (typeof NOTICE_CHANNELS)[number];

export const NOTICE_KINDS = ['breach', 'return', 'escalation', 'digest', 'flag', 'lateFlag'] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

export const NOTICE_KIND_WORDS: Readonly<Record<NoticeKind, string>> = {
  breach: 'Alarm',
  return: 'Back to normal',
  escalation: 'Not acknowledged',
  digest: 'Digest',
  flag: 'Flag',
  lateFlag: 'Late flag',
};

/** How a person wants notices. */
export interface NoticeWish {
  readonly byEmail: boolean;
  readonly byText: boolean;
  /** "+44 …"; null = none. */
  readonly phone: string | null;
  /** Hours in which only high-priority notices come; null = none. */
  readonly quiet: { readonly from: string; readonly to: string } | null;
  /** IANA zone of the quiet hours. */
  readonly zone: string;
}

/** One notice as the outbox shows it. Times are ms since the Unix epoch. */
export interface Notice {
  readonly id: string;
  readonly personName: string;
  readonly channel: NoticeChannel;
  readonly kind: NoticeKind;
  readonly subject: string;
  readonly body: string;
  /** Path within the app that it leads to. */
  readonly address: string;
  readonly createdAt: number;
  readonly dueAt: number;
  readonly sentAt: number | null;
  readonly sentTo: string | null;
  readonly attempts: number;
  readonly lastError: string | null;
  /** The digest it was gathered into; null = none. */
  readonly digestId: string | null;
  /** When a stand-in received it; null = it has not, or a real server was used. */
  readonly caughtAt: number | null;
}
