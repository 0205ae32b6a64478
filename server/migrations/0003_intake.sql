-- 0003 intake: files that were brought in, and what was refused of them.
-- compatible: yes
create table intake (
  id          bigint generated always as identity primary key,
  file_name   text not null,
  file_size   bigint not null,
  file_hash   text not null,                -- SHA-256, hex
  layout      jsonb not null,               -- how the file was read
  status      text not null,
  started_at  timestamptz not null,
  finished_at timestamptz,
  started_by  bigint not null references person (id),
  row_count   bigint not null default 0,
  refused     bigint not null default 0,
  constraint intake_status_known check (status in ('reading', 'done', 'cancelled'))
);

-- Samples of an intake on their way: nothing of a file reaches the store before all of it is here.
create table intake_batch (
  intake_id bigint not null references intake (id) on delete cascade,
  seq       integer not null,
  payload   jsonb not null,                 -- [{metricId, t: [...], v: [...]}]
  primary key (intake_id, seq)
);

create table intake_refusal (
  intake_id   bigint not null references intake (id) on delete cascade,
  line        bigint not null,
  column_name text not null,
  value       text not null,
  reason      text not null
);
create index intake_refusal_idx on intake_refusal (intake_id, line);

-- Which metrics a file fed, and over what time: the source that provenance names.
create table intake_metric (
  intake_id bigint not null references intake (id) on delete cascade,
  metric_id bigint not null references metric (id) on delete cascade,
  first_t   timestamptz not null,
  last_t    timestamptz not null,
  samples   bigint not null,
  added     bigint not null,
  unchanged bigint not null,
  corrected bigint not null,
  primary key (intake_id, metric_id)
);
create index intake_metric_metric_idx on intake_metric (metric_id);

-- Samples a metric got by push, by UTC day, for the same purpose.
create table push_day (
  metric_id bigint not null references metric (id) on delete cascade,
  day       date not null,
  token_id  bigint not null references push_token (id),
  samples   bigint not null,
  primary key (metric_id, day, token_id)
);
