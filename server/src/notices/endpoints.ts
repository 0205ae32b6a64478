import * as yup from 'yup';
import { allows, noticeWishSchema, type NoticeWish } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { listNotices, reachedPeople, writeWish } from './sql';

const MOST_NOTICES = 200;

export const noticeEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/notices',
    access: 'viewer',
    summary: `The outbox: the newest ${MOST_NOTICES} notices to the person who asks; analysts may ask for those of everybody (?of=all).`,
    answer: '{ notices: [Notice], standIns: { email, text } (true = nothing leaves the house) }',
    query: yup.object({ of: yup.string().oneOf(['me', 'all']).default('me') }).noUnknown(),
    handle: async ({ app, query, person }) => {
      const all = query.of === 'all' && allows(person.role, 'analyst');
      return {
        notices: await listNotices(app.pool, all ? null : person.id, MOST_NOTICES),
        standIns: app.standIns,
      };
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/notice-wish',
    access: 'viewer',
    summary: 'How the person who asks wants notices.',
    answer: '{ byEmail, byText, phone, quiet: { from, to } or null, zone, email }',
    handle: async ({ app, person }) => {
      const [{ byEmail, byText, phone, quiet, zone, email }] = await reachedPeople(app.pool, [person.id]);
      return { byEmail, byText, phone, quiet, zone, email };
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/notice-wish',
    access: 'viewer',
    summary: 'Sets how the person who asks wants notices; in quiet hours only high-priority ones come.',
    answer: 'Nothing (204).',
    body: noticeWishSchema,
    handle: ({ app, body, person }) => writeWish(app.pool, person.id, body as NoticeWish),
  }),
];
