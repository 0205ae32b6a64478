import type { SiteRequest } from './siteRequest';

const none: SiteRequest = { concern: 'none' };
const all: SiteRequest = { concern: 'all' };

/** Requests about people, their accounts and the trail: they belong to no plant. */
export const peopleRequests: Readonly<Record<string, SiteRequest>> = {
  'GET /api/accounts': all,
  'GET /api/accounts/:id': all,
  'POST /api/accounts': all,
  'PUT /api/accounts/:id': all,
  'PUT /api/accounts/:id/disabled': all,
  'POST /api/accounts/:id/invitation': all,
  'DELETE /api/accounts/:id/sessions': all,
  'POST /api/invitations/read': none,
  'POST /api/invitations': none,
  'GET /api/own-account': none,
  'PUT /api/own-account': none,
  'PUT /api/own-account/password': none,
  'DELETE /api/own-account/sessions/:id': none,
  'DELETE /api/own-account/sessions': none,
  'POST /api/own-account/second-factor': none,
  'PUT /api/own-account/second-factor': none,
  'POST /api/own-account/second-factor/removal': none,
  'PUT /api/accounts/:id/second-factor': all,
  'DELETE /api/accounts/:id/second-factor': all,
  'GET /api/sign-in/start': none,
  'GET /api/sign-in/return': none,
  'DELETE /api/accounts/:id/provider': all,
  'GET /api/trail': all,
  'GET /api/trail/subjects': all,
  'GET /api/trail/export': all,
  'POST /api/trail/check': all,
  'GET /api/trail/setting': all,
  'PUT /api/trail/setting': all,
};
