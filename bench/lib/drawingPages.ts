/*
 * What runs inside the pages of bench/drawing.ts. Each function is sent to the page as text, so it can use
 * nothing from this file.
 */

/** A bare page: as many SVG elements, each with one path; a mouse that drags moves them as a whole. */
export function barePage(count: number, width: number, height: number): string {
  const svg = `<svg width="${width}" height="${height}"><g><path fill="none" stroke="#123" stroke-width="1.5"/></g></svg>`;
  return `<!doctype html><body style="margin:0;user-select:none">${svg.repeat(count)}<script>
    let from = null;
    addEventListener('pointerdown', (event) => { from = event.clientX; });
    addEventListener('pointermove', (event) => {
      if (from === null) return;
      for (const g of document.querySelectorAll('g')) g.setAttribute('transform', 'translate(' + (event.clientX - from) + ' 0)');
    });
    addEventListener('pointerup', () => { from = null; });
  </script></body>`;
}

/** Answers of trends that are held back: their bytes, and a function that releases them. */
interface Held {
  readonly bodies: readonly ArrayBuffer[];
  readonly release: () => void;
}

/** From now on holds back the answers of trends, so that all can be released at one moment. */
export function holdTrends(): void {
  const w = window as never as { held: Held[]; bareFetch?: typeof fetch; fetch: typeof fetch };
  w.held = [];
  w.bareFetch ??= w.fetch.bind(window);
  w.fetch = async (...args) => {
    const response = await w.bareFetch!(...args);
    if (String(args[0]) !== '/api/readings') return response;
    const whole = await response.arrayBuffer();
    // One frame an answer: number, status, columns or not, length, body, padding to 8 bytes.
    const bodies: ArrayBuffer[] = [];
    for (let at = 0; at < whole.byteLength;) {
      const head = new DataView(whole, at, 16);
      const length = head.getUint32(12, true);
      if (head.getUint32(8, true) === 1) bodies.push(whole.slice(at + 16, at + 16 + length));
      at += 16 + Math.ceil(length / 8) * 8;
    }
    await new Promise<void>((release) => w.held.push({ bodies, release }));
    return new Response(whole.slice(0), { status: response.status, headers: response.headers });
  };
}

/** How many answers of trends are held back. */
export function heldTrends(): number {
  return (window as never as { held: Held[] }).held.reduce((n, { bodies }) => n + bodies.length, 0);
}

/**
 * Releases them and waits until every trend has a new path and the frame is painted.
 *
 * @returns `inSight`: ms until all trends that are in sight were painted; `ms`: until all were.
 */
export async function releaseTrends(
  count: number,
): Promise<{ ms: number; inSight: number; bodies: string[] }> {
  const w = window as never as { held: Held[]; bareFetch: typeof fetch; fetch: typeof fetch };
  const long = (among: ParentNode = document): string[] =>
    [...among.querySelectorAll('path')]
      .map((path) => path.getAttribute('d') ?? '')
      .filter((d) => d.length > 120);
  const before = new Set(long());
  const seen = [...document.querySelectorAll('[aria-roledescription=trend]')].filter((trend) => {
    const { top, bottom } = trend.getBoundingClientRect();
    return top < innerHeight && bottom > 0;
  });
  const painted = (): Promise<void> =>
    new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
  let inSight = 0;
  const bodies = w.held.flatMap((each) => each.bodies).slice(-count);
  const began = performance.now();
  for (const { release } of w.held) release();
  // Checked as soon as the document changes, as the bare page knows its own changes: checking once a frame
  // would add a frame.
  await new Promise<void>((resolve, reject) => {
    const look = (): void => {
      if (inSight === 0 && seen.every((trend) => long(trend).some((d) => !before.has(d)))) {
        inSight = -1;
        void painted().then(() => (inSight = performance.now() - began));
      }
      const fresh = new Set(long().filter((d) => !before.has(d)));
      if (fresh.size >= count) {
        watch.disconnect();
        resolve();
      } else if (performance.now() - began > 20_000) {
        watch.disconnect();
        reject(new Error(`only ${fresh.size} of ${count} drawn`));
      }
    };
    const watch = new MutationObserver(look);
    watch.observe(document.body, {
      attributes: true,
      attributeFilter: ['d'],
      childList: true,
      subtree: true,
    });
    setTimeout(look, 20_100);
  });
  await painted();
  const ms = performance.now() - began;
  w.fetch = w.bareFetch;
  // As text: a list of numbers would leave megabytes of garbage behind, to be collected in the next round.
  const asText = (body: ArrayBuffer): string => {
    let text = '';
    for (const byte of new Uint8Array(body)) text += String.fromCharCode(byte);
    return btoa(text);
  };
  return { ms, inSight, bodies: bodies.map(asText) };
}

/** The same bytes as bare paths: head and columns read, path text built, drawn, painted. */
export async function drawBare({
  bodies,
  width,
  height,
}: {
  bodies: string[];
  width: number;
  height: number;
}): Promise<{ ms: number; points: number }> {
  const buffers = bodies.map((body) => Uint8Array.from(atob(body), (letter) => letter.charCodeAt(0)).buffer);
  const paths = [...document.querySelectorAll('path')];
  let points = 0;
  const began = performance.now();
  // As with fetch, each is a response of its own.
  const read = await Promise.all(buffers.map((buffer) => new Response(buffer).arrayBuffer()));
  read.forEach((buffer, k) => {
    const length = new DataView(buffer).getUint32(0, true);
    const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, length))) as {
      columns: { length: number }[];
    };
    const n = head.columns[0].length;
    const from = Math.ceil((4 + length) / 8) * 8;
    const t = new Float64Array(buffer, from, n);
    const v = new Float64Array(buffer, from + n * 8, n);
    let low = Infinity;
    let high = -Infinity;
    for (let i = 0; i < n; i++) {
      if (v[i] < low) low = v[i];
      if (v[i] > high) high = v[i];
    }
    const kx = width / (t[n - 1] - t[0]);
    const ky = height / (high - low || 1);
    let d = '';
    let pen = 'M';
    for (let i = 0; i < n; i++) {
      if (v[i] !== v[i]) {
        pen = 'M';
        continue;
      }
      d += `${pen}${((t[i] - t[0]) * kx).toFixed(1)} ${(height - (v[i] - low) * ky).toFixed(1)}`;
      pen = 'L';
    }
    points += n;
    paths[k].setAttribute('d', d);
  });
  await new Promise<void>((resolve) => requestAnimationFrame(() => setTimeout(resolve, 0)));
  return { ms: performance.now() - began, points };
}

/** Notes how far apart frames are until `stopFrames()`. */
export function watchFrames(): void {
  const w = window as never as { stopFrames: () => number[] };
  const gaps: number[] = [];
  let last = performance.now();
  let on = true;
  const look = (): void => {
    const now = performance.now();
    gaps.push(now - last);
    last = now;
    if (on) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
  w.stopFrames = () => {
    on = false;
    return gaps;
  };
}
