-- 0005 alarms and flags.
-- compatible: yes
create table alarm_rule (
  id            bigint generated always as identity primary key,
  name          text not null,
  metric_id     bigint not null references metric (id) on delete cascade,
  side          text not null check (side in ('above', 'below')),
  alarm_limit   double precision not null,  -- unit of the metric
  deadband      double precision not null check (deadband >= 0),
  on_delay_ms   bigint not null check (on_delay_ms >= 0),
  off_delay_ms  bigint not null check (off_delay_ms >= 0),
  level         text not null check (level in ('caution', 'breach')),
  in_force      boolean not null default true,
  in_force_from timestamptz not null,
  created_by    bigint not null references person (id),
  -- What the condition remembers between samples (core/src/alarms/condition.ts).
  condition     jsonb not null
);
create index alarm_rule_metric_idx on alarm_rule (metric_id) where in_force;

create table alarm (
  id              bigint generated always as identity primary key,
  rule_id         bigint not null references alarm_rule (id) on delete cascade,
  state           text not null check (state in ('unacknowledged', 'acknowledged', 'returnedUnacknowledged', 'normal')),
  raised_at       timestamptz not null,
  raised_value    double precision not null,
  returned_at     timestamptz,
  acknowledged_at timestamptz,
  acknowledged_by bigint references person (id),
  constraint alarm_returns_after_raise check (returned_at >= raised_at)
);
-- One standing alarm a rule.
create unique index alarm_standing_idx on alarm (rule_id) where state <> 'normal';
create index alarm_raised_idx on alarm (raised_at desc);

-- History is only ever added to.
create table alarm_event (
  id        bigint generated always as identity primary key,
  alarm_id  bigint not null references alarm (id) on delete cascade,
  at        timestamptz not null,
  kind      text not null,
  person_id bigint references person (id),
  value     double precision,
  remark    text
);
create index alarm_event_alarm_idx on alarm_event (alarm_id, at, id);

create table flag (
  id           bigint generated always as identity primary key,
  title        text not null,
  note         text not null,
  asset_id     bigint not null references asset (id),
  alarm_id     bigint references alarm (id),
  from_person  bigint not null references person (id),
  to_person    bigint not null references person (id),
  created_at   timestamptz not null,
  due_at       timestamptz not null,
  closed_at    timestamptz,
  closed_by    bigint references person (id),
  outcome      text,
  outcome_note text,
  constraint flag_closed_has_outcome check ((closed_at is null) = (outcome is null))
);
create index flag_open_idx on flag (to_person, due_at) where closed_at is null;
