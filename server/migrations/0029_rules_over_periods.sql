-- 0029 alarm rules that judge the values of whole periods, of any metric or of an indicator, once a period has closed.
-- compatible: yes
alter table alarm_rule
  add column over           jsonb,      -- core/src/alarms/rulePeriods.ts; null = each sample is judged
  -- Unit and decimals of what is judged; null = those of the metric.
  add column value_unit     text,
  add column value_decimals integer;
alter table alarm_watch
  add column judged_to  timestamptz,    -- end of the newest period judged
  add column due_at     timestamptz,    -- when the next period ends
  -- Samples have come for periods already judged: from here on they are judged again.
  add column stale_from timestamptz,
  add column stale_mark bigint not null default 0,
  -- Why the newest period could not be judged; null = it could.
  add column problem    text;
create index alarm_watch_due_idx on alarm_watch (due_at) where due_at is not null;
create index alarm_watch_stale_idx on alarm_watch (rule_id) where stale_from is not null;

-- The metrics whose samples decide the value of a period, down through derived metrics.
create table alarm_watch_input (
  rule_id   bigint not null,
  metric_id bigint not null,
  input_id  bigint not null references metric (id) on delete cascade,
  primary key (rule_id, metric_id, input_id),
  foreign key (rule_id, metric_id) references alarm_watch (rule_id, metric_id) on delete cascade
);
create index alarm_watch_input_idx on alarm_watch_input (input_id);

-- The values that were judged.
create table alarm_period (
  rule_id   bigint not null,
  metric_id bigint not null,
  ends_at   timestamptz not null,
  value     double precision,           -- null = too little data
  level     text check (level in ('clear', 'caution', 'breach', 'nodata')),
  primary key (rule_id, metric_id, ends_at),
  foreign key (rule_id, metric_id) references alarm_watch (rule_id, metric_id) on delete cascade
);
