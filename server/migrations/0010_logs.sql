-- 0010 logs: the stop log and the job log with its status history; remarks on a stretch of time.
-- compatible: yes
create table stop_entry (
  id         bigint generated always as identity primary key,
  asset_id   bigint not null references asset (id) on delete cascade,
  start_at   timestamptz not null,
  end_at     timestamptz,                   -- null while it is still stopped
  category   text not null default '',
  reason     text not null,
  note       text not null default '',
  entry_key  text,                          -- the sender's own number, so that sending again adds nothing
  entered_by text not null,
  entered_at timestamptz not null,
  constraint stop_ends_after_start check (end_at > start_at)
);
create index stop_entry_asset_idx on stop_entry (asset_id, start_at);
create unique index stop_entry_key_idx on stop_entry (asset_id, entry_key) where entry_key is not null;

create table job_entry (
  id         bigint generated always as identity primary key,
  asset_id   bigint not null references asset (id) on delete cascade,
  number     text not null,
  category   text not null default '',
  customer   text not null default '',
  owner      text not null default '',
  fields     jsonb not null default '{}',
  entered_by text not null,
  entered_at timestamptz not null
);
create unique index job_entry_number_idx on job_entry (asset_id, number);

-- A job opens with its first status; each status holds until the next.
create table job_status (
  job_id bigint not null references job_entry (id) on delete cascade,
  at     timestamptz not null,
  status text not null,
  by     text not null,
  primary key (job_id, at)
);

-- What a status means on a desk: it may stop the clock, and it may end the job.
create table job_status_kind (
  asset_id    bigint not null references asset (id) on delete cascade,
  status      text not null,
  stops_clock boolean not null default false,
  ends_job    boolean not null default false,
  primary key (asset_id, status)
);

create table remark (
  id         bigint generated always as identity primary key,
  asset_id   bigint not null references asset (id) on delete cascade,
  start_at   timestamptz not null,
  end_at     timestamptz not null,
  kind       text not null check (kind in ('reason', 'abnormal', 'note')),
  text       text not null,
  author_id  bigint not null references person (id),
  written_at timestamptz not null,
  constraint remark_ends_after_start check (end_at > start_at)
);
create index remark_asset_idx on remark (asset_id, start_at);
