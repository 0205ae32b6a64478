-- 0002 samples: assets, metrics and their samples in packed days.
-- compatible: yes
create table asset (
  id         bigint generated always as identity primary key,
  parent_id  bigint references asset (id),
  name       text not null,
  kind       text not null,
  zone       text,                          -- IANA name; null = that of the parent
  attributes jsonb not null default '{}',
  constraint asset_top_has_zone check (parent_id is not null or zone is not null)
);
create index asset_parent_idx on asset (parent_id);
create unique index asset_name_idx on asset (coalesce(parent_id, 0), lower(name));

create table metric (
  id          bigint generated always as identity primary key,
  asset_id    bigint not null references asset (id),
  key         text not null unique,         -- what a push names it by
  name        text not null,
  unit        text not null,                -- as the person wrote it
  kind        text not null,
  interval_ms bigint not null,
  max_gap_ms  bigint not null,
  rollover    double precision,
  decimals    smallint not null,
  created_at  timestamptz not null,
  constraint metric_kind_known check (kind in ('level', 'amount', 'register', 'state')),
  constraint metric_interval_positive check (interval_ms > 0 and max_gap_ms > 0)
);
create index metric_asset_idx on metric (asset_id);
create unique index metric_name_idx on metric (asset_id, lower(name));

-- One row per metric and UTC day; the bytes are those of core/src/series/dayCodec.ts.
-- A day stays one inline tuple, so reading a window reads one tuple a day.
create table sample_day (
  metric_id bigint not null references metric (id) on delete cascade,
  day       date not null,
  n         integer not null,
  times     bytea not null,
  vals      bytea not null,
  primary key (metric_id, day)
) with (toast_tuple_target = 8160);
alter table sample_day alter column times set compression lz4;
alter table sample_day alter column vals set compression lz4;

-- Newest sample of each metric, kept with every accepted batch.
create table metric_latest (
  metric_id bigint primary key references metric (id) on delete cascade,
  t         timestamptz not null,
  v         double precision not null
);

-- What a corrected sample said before.
create table sample_correction (
  metric_id    bigint not null references metric (id) on delete cascade,
  t            timestamptz not null,
  value_before double precision not null,
  value_after  double precision not null,
  corrected_at timestamptz not null,
  source       text not null
);
create index sample_correction_metric_idx on sample_correction (metric_id, t);

-- Where each asset is: its zone (own or inherited) and the plant (topmost asset) it belongs to.
create view asset_place as
with recursive place as (
  select id as asset_id, zone, id as plant_id, name as plant_name, 1 as depth
  from asset where parent_id is null
  union all
  select child.id, coalesce(child.zone, place.zone), place.plant_id, place.plant_name, place.depth + 1
  from asset child join place on child.parent_id = place.asset_id
)
select * from place;
