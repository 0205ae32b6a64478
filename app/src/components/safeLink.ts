/** The address a note may lead to: a page of ours, the web over TLS or plain, or mail. null = none of these. */
export function safeLink(href: string): string | null {
  const text = href.trim();
  if (/^\/(?!\/)/.test(text)) return text;
  try {
    const { protocol } = new URL(text);
    return ['https:', 'http:', 'mailto:'].includes(protocol) ? text : null;
  } catch {
    return null;
  }
}
