-- 0016 alarm rules that look for more than a limit, over one metric or many, with priority, hours and suppression by design.
-- compatible: no
alter table alarm_rule
  add column test              jsonb,   -- core/src/alarms/alarmTest.ts
  add column hours             jsonb,   -- core/src/time/hours.ts; null = always
  add column priority          text not null default 'medium' check (priority in ('high', 'medium', 'low')),
  -- Asset on and below which every metric of the same name, unit and kind is watched; null = one metric.
  add column under             bigint references asset (id) on delete cascade,
  add column suppress          jsonb,   -- { metricId, code, is }
  add column message           text not null default '',
  add column to_do             text not null default '',
  add column told              bigint[] not null default '{}',
  add column escalate_after_ms bigint check (escalate_after_ms > 0),
  add column escalate_to       bigint[] not null default '{}';
update alarm_rule set test = jsonb_build_object('kind', 'limit', 'side', side, 'limit', alarm_limit, 'deadband', deadband);
alter table alarm_rule
  alter column test set not null,
  drop column side,
  drop column alarm_limit,
  drop column deadband;

-- One metric that a rule watches: what its condition remembers, what it learnt, how it is set aside.
create table alarm_watch (
  rule_id         bigint not null references alarm_rule (id) on delete cascade,
  metric_id       bigint not null references metric (id) on delete cascade,
  condition       jsonb not null,        -- core/src/alarms/condition.ts
  model           jsonb,                 -- core/src/alarms/alarmModel.ts
  suppress_metric bigint references metric (id) on delete set null,
  suppressed      boolean not null default false,
  aside           text check (aside in ('shelved', 'outOfService')),
  aside_until     timestamptz,
  aside_at        timestamptz,
  aside_by        bigint references person (id),
  aside_reason    text,
  primary key (rule_id, metric_id),
  constraint alarm_watch_aside_is_told check ((aside is null) = (aside_at is null) and (aside is null) = (aside_reason is null)),
  constraint alarm_watch_shelf_ends check (aside <> 'shelved' or aside_until is not null)
);
insert into alarm_watch (rule_id, metric_id, condition, aside, aside_until, aside_at, aside_by, aside_reason)
select id, metric_id, condition, aside, aside_until, aside_at, aside_by, aside_reason from alarm_rule
where in_force or aside is not null;
create index alarm_watch_metric_idx on alarm_watch (metric_id);
create index alarm_watch_suppress_idx on alarm_watch (suppress_metric) where suppress_metric is not null;
create index alarm_watch_shelved_idx on alarm_watch (aside_until) where aside = 'shelved';
alter table alarm_rule
  drop column condition, drop column aside, drop column aside_until, drop column aside_at, drop column aside_by,
  drop column aside_reason;

alter table alarm_rule_event add column metric_id bigint references metric (id) on delete cascade;
update alarm_rule_event event set metric_id = rule.metric_id from alarm_rule rule where rule.id = event.rule_id;

alter table alarm add column metric_id bigint references metric (id) on delete cascade;
update alarm set metric_id = rule.metric_id from alarm_rule rule where rule.id = alarm.rule_id;
drop index alarm_standing_idx;
alter table alarm
  alter column metric_id set not null,
  alter column raised_value drop not null,
  drop constraint alarm_state_check,
  add constraint alarm_state_check check (state in (
    'unacknowledged', 'acknowledged', 'returnedUnacknowledged', 'latchedUnacknowledged', 'latchedAcknowledged',
    'shelved', 'suppressed', 'outOfService', 'normal'));
-- One standing alarm a rule and metric.
create unique index alarm_standing_idx on alarm (rule_id, metric_id) where state <> 'normal';

-- Raised while it was set aside or suppressed: nobody was called.
alter table alarm_event add column unheard boolean not null default false;
update alarm_event raised set unheard = true
from alarm
where alarm.id = raised.alarm_id and raised.kind = 'raised' and coalesce((
  select aside.kind from alarm_rule_event aside
  where aside.rule_id = alarm.rule_id and aside.at <= raised.at order by aside.at desc, aside.id desc limit 1
), 'putBack') <> 'putBack';
