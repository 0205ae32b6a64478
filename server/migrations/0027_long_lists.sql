-- 0027 long lists: alarms, rules, flags and indicators are searched, sorted and paged by the database. The level of each
-- indicator is kept, so that the worst come first without computing all of them at each question.
-- compatible: yes
create table indicator_level (
  indicator_id bigint primary key references indicator on delete cascade,
  level text not null check (level in ('clear', 'caution', 'breach', 'nodata')),
  -- Order of the levels, the worst first.
  severity smallint not null,
  at timestamptz not null
);
create index indicator_level_at_idx on indicator_level (at);
create index alarm_over_idx on alarm (raised_at desc, id desc) where state = 'normal';
create index alarm_rule_name_idx on alarm_rule (name collate natural_order, id) where in_force;
create index flag_due_idx on flag (due_at) where closed_at is null;
create index flag_closed_idx on flag (closed_at desc, id) where closed_at is not null;
create index flag_alarm_idx on flag (alarm_id) where alarm_id is not null;
