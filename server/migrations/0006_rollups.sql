-- 0006 rollups: quality flags, what lies at both ends of a day, tallies of every quarter of an hour.
-- compatible: no   (an older server would not keep the rollups)
alter table sample_day
  add column flags    bytea,                -- core/src/series/dayCodec.ts; null = all good
  add column first_ms integer,              -- ms of the day of the first usable sample; null = none
  add column first_v  double precision,
  add column last_ms  integer,
  add column last_v   double precision,
  add column unusable integer not null default 0;

-- One row per metric and UTC day that samples touch; the bytes are those of core/src/rollup/rollupCodec.ts.
-- Written in the transaction that changed the samples. Kept when samples are thrown away by retention.
create table rollup_day (
  metric_id bigint not null references metric (id) on delete cascade,
  day       date not null,
  body      bytea not null,
  primary key (metric_id, day)
) with (toast_tuple_target = 8160);
alter table rollup_day alter column body set compression lz4;

alter table metric
  add column ucum           text,           -- UCUM code of the unit, where one was found
  add column origin         text not null default 'samples',
  add column plausible_low  double precision,
  add column plausible_high double precision,
  add column retention_days integer check (retention_days > 0),
  add column removed_at     timestamptz,
  -- Rollups made by an older way of computing are made again when the server starts.
  add column rollup_version integer not null default 0,
  add constraint metric_origin_known check (origin in ('samples', 'derived', 'reference')),
  add constraint metric_plausible_order check (plausible_low <= plausible_high);

alter table metric_latest
  add column q           smallint not null default 0,
  add column received_at timestamptz,
  add column flat_since  timestamptz,       -- since when the value has not changed
  add column ahead_ms    bigint not null default 0, -- how far the sender's clock ran ahead, last time
  add column ahead_at    timestamptz;

alter table sample_correction
  add column quality_before smallint not null default 0,
  add column quality_after  smallint not null default 0;
