import { useQuery } from '@tanstack/react-query';
import type { Notice, NoticeWish } from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';

/* The outbox, and how the person who is signed in wants notices. */

export interface Outbox {
  readonly notices: readonly Notice[];
  /** Which of the stand-ins that ship with the product are used. */
  readonly standIns: { readonly email: boolean; readonly text: boolean };
}

export const useOutbox = (of: 'me' | 'all') =>
  useQuery({
    queryKey: ['notices', of],
    queryFn: () => call<Outbox>('GET', `/api/notices?of=${of}`),
  });

export type NoticeWishAnswer = NoticeWish & { readonly email: string };

export const useNoticeWish = () =>
  useQuery({
    queryKey: ['notices', 'wish'],
    queryFn: () => call<NoticeWishAnswer>('GET', '/api/notice-wish'),
  });

export const useSetNoticeWish = () =>
  useChange((wish: NoticeWish) => call<void>('PUT', '/api/notice-wish', wish), ['notices']);
