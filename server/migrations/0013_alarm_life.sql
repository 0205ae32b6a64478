-- 0013 alarms that latch, are shelved, or are out of service (core/src/alarms/lifecycle.ts).
-- compatible: yes
alter table alarm drop constraint alarm_state_check;
alter table alarm add constraint alarm_state_check check (state in (
  'unacknowledged', 'acknowledged', 'returnedUnacknowledged', 'latchedUnacknowledged', 'latchedAcknowledged',
  'shelved', 'outOfService', 'normal'));

alter table alarm_rule
  add column latching       boolean not null default false,
  -- Set aside: alarms are recorded, and nobody is called. A shelf has an end, out of service has none.
  add column aside          text check (aside in ('shelved', 'outOfService')),
  add column aside_until    timestamptz,
  add column aside_at       timestamptz,
  add column aside_by       bigint references person (id),
  add column aside_reason   text,
  add constraint alarm_rule_aside_is_told check ((aside is null) = (aside_at is null) and (aside is null) = (aside_reason is null)),
  add constraint alarm_rule_shelf_ends check (aside <> 'shelved' or aside_until is not null);
create index alarm_rule_shelved_idx on alarm_rule (aside_until) where aside = 'shelved';

-- What was set aside, by whom, why and until when: only ever added to.
create table alarm_rule_event (
  id        bigint generated always as identity primary key,
  rule_id   bigint not null references alarm_rule (id) on delete cascade,
  at        timestamptz not null,
  kind      text not null check (kind in ('shelved', 'outOfService', 'putBack')),
  until     timestamptz,
  person_id bigint references person (id),
  reason    text
);
create index alarm_rule_event_rule_idx on alarm_rule_event (rule_id, at, id);
