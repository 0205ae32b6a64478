import type { TrailEntry } from '@vivid-beacon/core';

/** What tables are called on screen. */
const KINDS: Readonly<Record<string, string>> = {
  alarm_event: 'alarm',
  alarm_rule: 'alarm rule',
  alarm_rule_event: 'rule set aside',
  asset: 'asset',
  board: 'board',
  derived_metric: 'expression of a derived metric',
  equivalence_factor: 'factor',
  equivalence_value: 'value of a factor',
  flag: 'flag',
  flag_cause: 'cause of flags',
  flag_event: 'step of a flag',
  handover_note: 'handover note',
  heard_series: 'mapping of a received series',
  indicator: 'indicator',
  indicator_target: 'target of an indicator',
  indicator_version: 'definition of an indicator',
  intake: 'intake',
  intake_mapping: 'remembered mapping of files',
  invitation: 'invitation',
  job_entry: 'job',
  job_status: 'status of a job',
  job_status_kind: 'statuses of a desk',
  metric: 'metric',
  notice_wish: 'how somebody is told',
  person: 'account',
  person_site: 'role at a plant',
  push_token: 'push token',
  reference_value: 'reference value',
  remark: 'remark',
  request: 'request',
  session: 'session',
  setting: 'setting',
  stop_entry: 'stop',
  trail: 'trail',
  working_calendar: 'working calendar',
};

export function kindWords(subject: string): string {
  return KINDS[subject] ?? subject.replaceAll('_', ' ');
}

const ACTIONS: Readonly<Record<string, string>> = {
  signedIn: 'Signed in',
  signedOut: 'Signed out',
  signInFailed: 'Wrong password',
  signInRefused: 'Not signed in by the provider',
  refused: 'Refused for lack of rights',
  cut: 'Old entries cut off',
};

/** "Alarm rule changed: Ironer 2 too hot". */
export function entryTitle({ action, subject, name, subjectId }: TrailEntry): string {
  const known = ACTIONS[action];
  if (known) return name && action !== 'cut' ? `${known}: ${name}` : known;
  const kind = kindWords(subject);
  const called = name ?? (subjectId === null ? '' : `no. ${subjectId}`);
  return `${kind[0].toUpperCase()}${kind.slice(1)} ${action}${called ? `: ${called}` : ''}`;
}

/** One member before and after; null = it was not there. */
export interface MemberChange {
  readonly name: string;
  readonly before: string | null;
  readonly after: string | null;
}

/** Members that an entry tells of, in order of their names. */
export function memberChanges({ before, after }: TrailEntry): MemberChange[] {
  const names = [...new Set([...Object.keys(before ?? {}), ...Object.keys(after ?? {})])].sort();
  return names
    .map((name) => ({
      name: name.replaceAll('_', ' '),
      before: written(before?.[name]),
      after: written(after?.[name]),
    }))
    .filter((each) => each.before !== null || each.after !== null);
}

function written(value: unknown): string | null {
  if (value === undefined || value === null) return null;
  return typeof value === 'string' ? value : JSON.stringify(value);
}
