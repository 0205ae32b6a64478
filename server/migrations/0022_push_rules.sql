-- 0022 push rules: which series of exposition text feed which metric, and series that wait to be mapped.
-- compatible: yes
alter table push_token
  -- Labels that name the asset and the metric of a series; null = the rule does not look at labels.
  add column asset_label  text,
  add column metric_label text,
  -- What becomes of a series without a metric: it waits to be mapped, or asset and metric are made by the rule.
  add column unknown      text not null default 'wait',
  -- Made assets stand under this one; null = none are made.
  add column parent_id    bigint references asset (id) on delete set null,
  -- What holds where different values of one series and time meet in one push.
  add column collisions   text not null default 'last',
  add constraint push_token_unknown_known check (unknown in ('wait', 'make')),
  add constraint push_token_collisions_known check (collisions in ('last', 'first', 'sum', 'mean'));

-- Series that were heard in exposition text, mapped to a metric or waiting for it.
create table heard_series (
  token_id    bigint not null references push_token (id) on delete cascade,
  series      text not null,                  -- name{label="value",…}, labels in order
  name        text not null,
  labels      jsonb not null,
  metric_id   bigint references metric (id) on delete set null,
  first_heard timestamptz not null,
  last_heard  timestamptz not null,
  last_v      double precision,
  heard       bigint not null default 1,      -- samples that came while it waited
  primary key (token_id, series)
);
create index heard_series_metric_idx on heard_series (metric_id);
