import { endpoint } from '../http/endpoint';

export const liveEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/live',
    access: 'viewer',
    summary: 'Server-sent events: what changed, so that a screen reads it again.',
    answer:
      'text/event-stream; event "change" with { topic: samples | alarms | flags | boards | metrics | everything …, ids }. It ends with the session.',
    handle: ({ app, request, response }) => app.live.connect(request, response),
  }),
];
