-- 0011 intake streams: packed parts written with COPY, undo, remembered mappings.
-- compatible: no   (an older server would look for parts in intake_batch)
drop table intake_batch;
alter table intake drop constraint intake_status_known;
alter table intake
  add constraint intake_status_known check (status in ('reading', 'done', 'cancelled', 'undone')),
  add column undone_at timestamptz,
  add column undone_by bigint references person (id),
  add column notes     jsonb not null default '{}';  -- repeated hours, blank cells, rows passed over
alter table intake_refusal add column part integer not null default 0;

-- Samples of an intake on their way, a packed day a row. Unlogged: a crash loses nothing that was promised,
-- because nothing of a file is in the store before all of it is here.
create unlogged table intake_part (
  intake_id bigint not null,
  seq       integer not null,
  metric_id bigint not null,
  day       date not null,
  n         integer not null,
  times     bytea not null,
  vals      bytea not null,
  flags     bytea
);
create index intake_part_idx on intake_part (intake_id, metric_id, day, seq);
create unlogged table intake_arrived (intake_id bigint not null, seq integer not null, primary key (intake_id, seq));

-- What an intake changed, so that it can be undone: the samples it added and those it replaced.
create table intake_change (
  intake_id     bigint not null references intake (id) on delete cascade,
  metric_id     bigint not null references metric (id) on delete cascade,
  day           date not null,
  added_n       integer not null,
  added_times   bytea not null,
  added_vals    bytea not null,
  added_flags   bytea,
  before_n      integer not null,
  before_times  bytea not null,
  before_vals   bytea not null,
  before_flags  bytea,
  after_vals    bytea not null,
  after_flags   bytea,
  primary key (intake_id, metric_id, day)
);

-- How a file of this shape was read and what its columns fed, for the next one.
create table intake_mapping (
  shape   text primary key,                 -- SHA-256 of headings and separator
  layout  jsonb not null,
  plans   jsonb not null,
  zone    text not null,
  used_at timestamptz not null,
  used_by bigint not null references person (id)
);
