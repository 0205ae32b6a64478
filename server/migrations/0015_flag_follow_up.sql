-- 0015 flags that are followed up: status, priority, evidence frozen when they were handed out, cause, time spent, history.
-- compatible: no   (an older server would close flags without their status)
create table flag_cause (
  id         bigint generated always as identity primary key,
  name       text not null unique,
  removed_at timestamptz
);

alter table flag
  add column kind          text not null default 'breach' check (kind in ('breach', 'loss', 'remark')),
  add column priority      text not null default 'normal' check (priority in ('high', 'normal', 'low')),
  add column status        text not null default 'open' check (status in ('open', 'inHand', 'done', 'notProblem')),
  add column metric_id     bigint references metric (id) on delete set null,
  -- Address of the view, its stretch of time and its numbers as they were then (core/src/domain/flags.ts).
  add column evidence      jsonb,
  add column cause_id      bigint references flag_cause (id),
  add column minutes_spent integer check (minutes_spent >= 0);
update flag set status = case outcome when 'noFault' then 'notProblem' else 'done' end where closed_at is not null;
alter table flag
  add constraint flag_closed_has_status check ((closed_at is null) = (status in ('open', 'inHand')));
create index flag_metric_idx on flag (metric_id) where metric_id is not null;

-- What happened to a flag, by whom: only ever added to.
create table flag_event (
  id        bigint generated always as identity primary key,
  flag_id   bigint not null references flag (id) on delete cascade,
  at        timestamptz not null,
  kind      text not null check (kind in ('handed', 'inHand', 'comment', 'handedOn', 'closed', 'reopened')),
  person_id bigint not null references person (id),
  remark    text not null
);
create index flag_event_flag_idx on flag_event (flag_id, at, id);
insert into flag_event (flag_id, at, kind, person_id, remark)
select id, created_at, 'handed', from_person, '' from flag;
insert into flag_event (flag_id, at, kind, person_id, remark)
select id, closed_at, 'closed', closed_by, coalesce(outcome_note, '') from flag where closed_by is not null;
