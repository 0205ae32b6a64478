const HERE = 'https://here.invalid';

/** The address a note may lead to: a page of ours, the web over TLS or plain, or mail. null = none of these. */
export function safeLink(href: string): string | null {
  const text = href.trim();
  try {
    // Read as browsers read it (the URL standard): "/\host" leads away from here as "//host" does.
    if (text.startsWith('/')) return new URL(text, HERE).origin === HERE ? text : null;
    const { protocol } = new URL(text);
    return ['https:', 'http:', 'mailto:'].includes(protocol) ? text : null;
  } catch {
    return null;
  }
}
