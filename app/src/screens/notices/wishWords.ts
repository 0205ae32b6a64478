import type { OwnNoticeWish } from '@vivid-beacon/core';

/** Where notices go: "By e-mail to …, by text message to …". */
export function wishWords({ byEmail, byText, email, phone }: OwnNoticeWish): string {
  const ways = [byEmail && `by e-mail to ${email}`, byText && `by text message to ${phone}`].filter(Boolean);
  if (ways.length === 0) return 'Not at all: they stay in this outbox only';
  const text = ways.join(', ');
  return text[0].toUpperCase() + text.slice(1);
}
