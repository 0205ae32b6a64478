import { useQuery } from '@tanstack/react-query';
import type { NoticeWish } from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';

/* The outbox, and how the person who is signed in wants notices. */

export const useOutbox = (of: 'me' | 'all') =>
  useQuery({ queryKey: ['notices', of], queryFn: () => call('GET /api/notices', { query: { of } }) });

export const useNoticeWish = () =>
  useQuery({ queryKey: ['notices', 'wish'], queryFn: () => call('GET /api/notice-wish') });

export const useSetNoticeWish = () =>
  useChange((wish: NoticeWish) => call('PUT /api/notice-wish', { body: wish }), ['notices']);
