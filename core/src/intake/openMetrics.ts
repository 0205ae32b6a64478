import { BeaconError } from '../errors';

/** One sample of an OpenMetrics text exposition. */
export interface ExposedSample {
  /** Line in the text, from 1. */
  readonly line: number;
  readonly name: string;
  /** In the order they stand in the text. */
  readonly labels: readonly (readonly [string, string])[];
  readonly value: number;
  /** ms since the Unix epoch; null where the line has no time. */
  readonly t: number | null;
}

export interface Exposition {
  readonly samples: readonly ExposedSample[];
  readonly refused: readonly { readonly line: number; readonly text: string; readonly reason: string }[];
  /** Units by metric family, from `# UNIT` lines. */
  readonly units: ReadonlyMap<string, string>;
  /** Types by metric family: counter, gauge … */
  readonly types: ReadonlyMap<string, string>;
}

const NAME = /^[a-zA-Z_:][a-zA-Z0-9_:]*/;
const LABEL = /[a-zA-Z_][a-zA-Z0-9_]*/y;
const NUMBER = /^[+-]?(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?$/;

/**
 * Reads the OpenMetrics text format: one sample a line as name, labels in braces, value and time in seconds;
 * `# TYPE`, `# UNIT` and `# HELP` describe families; the text ends with `# EOF`. Exemplars are ignored. A
 * line that breaks a rule is refused by number with its reason, the others are kept.
 *
 * @throws {BeaconError} BAD_INPUT when `# EOF` is missing: the text may be cut short. Source: OpenMetrics 1.0
 * (draft-richih-opsawg-openmetrics-00), section "ABNF" and "Overall structure" (from memory).
 */
export function readOpenMetrics(text: string): Exposition {
  const { ended, lines, ...exposition } = readLines(text, 'openmetrics');
  if (!ended) {
    throw new BeaconError(
      'BAD_INPUT',
      `The text does not end with "# EOF"; it may be cut short after line ${lines}. Nothing was taken.`,
    );
  }
  return exposition;
}

/**
 * Reads the plain exposition text, version 0.0.4 (content type `text/plain`): as OpenMetrics, but without an end mark,
 * with times in milliseconds, and with empty lines and comments anywhere.
 *
 * @throws {BeaconError} BAD_INPUT when all times look like seconds: then it is OpenMetrics text that was cut short.
 * Source: common practice of clients of that format, from memory.
 */
export function readPlainExposition(text: string): Exposition {
  const exposition = readLines(text, 'plain');
  const timed = exposition.samples.filter(({ t }) => t !== null);
  if (timed.length > 0 && timed.every(({ t }) => Math.abs(t!) < MAX_SECONDS)) {
    throw new BeaconError(
      'BAD_INPUT',
      `The times are seconds, as in OpenMetrics text, but its end mark "# EOF" is missing; it may be cut short after line ${exposition.lines}. Nothing was taken.`,
    );
  }
  return exposition;
}

/** A time in ms below this would lie before March 1973: it was meant in seconds. */
const MAX_SECONDS = 1e11;

/** Whether a text ends with the OpenMetrics end mark. */
export function hasEndMark(text: string): boolean {
  return /(^|\n)# EOF\r?\n?$/.test(text);
}

function readLines(
  text: string,
  format: 'openmetrics' | 'plain',
): Exposition & { readonly ended: boolean; readonly lines: number } {
  const strict = format === 'openmetrics';
  const lines = text.split('\n');
  const samples: ExposedSample[] = [];
  const refused: { line: number; text: string; reason: string }[] = [];
  const units = new Map<string, string>();
  const types = new Map<string, string>();
  let ended = false;
  for (const [i, written] of lines.entries()) {
    const line = i + 1;
    const each = written.endsWith('\r') ? written.slice(0, -1) : written;
    const refuse = (reason: string): void => {
      refused.push({ line, text: each.slice(0, 120), reason });
    };
    if (ended) {
      if (each !== '') refuse('stands after # EOF');
      continue;
    }
    if (each === '# EOF') {
      ended = true;
    } else if (each.trim() === '') {
      if (strict && i < lines.length - 1) refuse('empty lines are not allowed');
    } else if (each.startsWith('#')) {
      const found = /^#\s+(TYPE|UNIT|HELP)\s+([a-zA-Z_:][a-zA-Z0-9_:]*)(?:\s(.*))?$/.exec(each);
      if (found?.[1] === 'UNIT') units.set(found[2], found[3] ?? '');
      else if (found?.[1] === 'TYPE') types.set(found[2], found[3] ?? 'unknown');
      else if (!found && strict) refuse('a line that begins with # must be TYPE, UNIT, HELP or EOF');
    } else {
      const sample = readSampleLine(
        strict ? each : each.trim().replace(/\s+(?=[^"]*$)/g, ' '),
        line,
        strict ? 1000 : 1,
      );
      if ('reason' in sample) refuse(sample.reason);
      else samples.push(sample);
    }
  }
  return { samples, refused, units, types, ended, lines: lines.length };
}

/** No sample needs more labels; each is compared with those before it. */
const MAX_LABELS = 100;

function readSampleLine(text: string, line: number, msPerUnit: number): ExposedSample | { reason: string } {
  const name = NAME.exec(text)?.[0];
  if (!name) return { reason: 'must begin with the name of a metric' };
  let at = name.length;
  const labels: [string, string][] = [];
  if (text[at] === '{') {
    at++;
    while (text[at] !== '}') {
      LABEL.lastIndex = at;
      const label = LABEL.exec(text)?.[0];
      if (!label || text[at + label.length] !== '=' || text[at + label.length + 1] !== '"') {
        return { reason: `labels are written name="value" (character ${at + 1})` };
      }
      at += label.length + 2;
      let value = '';
      for (; text[at] !== '"'; at++) {
        if (at >= text.length) return { reason: `the value of label ${label} does not end` };
        if (text[at] !== '\\') value += text[at];
        else {
          at++;
          const escaped = { n: '\n', '"': '"', '\\': '\\' }[text[at]];
          if (escaped === undefined) return { reason: `unknown escape in label ${label}` };
          value += escaped;
        }
      }
      if (labels.some(([known]) => known === label)) return { reason: `label ${label} stands twice` };
      if (labels.length >= MAX_LABELS) return { reason: `has more than ${MAX_LABELS} labels` };
      labels.push([label, value]);
      at++;
      if (text[at] === ',') {
        at++;
        while (msPerUnit === 1 && text[at] === ' ') at++;
      } else if (text[at] !== '}') return { reason: `labels are parted by commas (character ${at + 1})` };
    }
    at++;
  }
  if (text[at] !== ' ') return { reason: `a space must follow the name (character ${at + 1})` };
  const [numbers] = text.slice(at + 1).split(' # ');
  const parts = numbers.split(' ');
  if (parts.length > 2) return { reason: 'only a value and a time may follow the name' };
  const value = numberOf(parts[0]);
  if (value === null) return { reason: `the value must be a number, got "${parts[0].slice(0, 40)}"` };
  if (parts.length === 1) return { line, name, labels, value, t: null };
  const seconds = NUMBER.test(parts[1]) ? Number(parts[1]) : NaN;
  if (!Number.isFinite(seconds)) {
    const unit = msPerUnit === 1 ? 'milliseconds' : 'seconds';
    return { reason: `the time must be ${unit} since 1970, got "${parts[1].slice(0, 40)}"` };
  }
  return { line, name, labels, value, t: Math.round(seconds * msPerUnit) };
}

function numberOf(text: string): number | null {
  if (NUMBER.test(text)) return Number(text);
  const special: Readonly<Record<string, number>> = {
    nan: NaN,
    '+inf': Infinity,
    inf: Infinity,
    '-inf': -Infinity,
  };
  return special[text.toLowerCase()] ?? null;
}

/** What a sample is called when files and pushes are matched to metrics: "flow{line=\"2\"}". */
export function exposedName({ name, labels }: Pick<ExposedSample, 'name' | 'labels'>): string {
  return labels.length === 0 ? name : `${name}{${labels.map(([k, v]) => `${k}="${v}"`).join(',')}}`;
}
