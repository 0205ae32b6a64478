-- 0019 indicators that are governed: definitions with versions, and targets by period.
-- compatible: no
alter table indicator
  add column version    integer not null default 1,
  add column removed_at timestamptz;
-- Every definition an indicator has had; the newest is in force. History is judged by the one in force then.
create table indicator_version (
  indicator_id bigint not null references indicator (id) on delete cascade,
  version      integer not null,
  valid_from   timestamptz not null,
  written_by   bigint references person (id),
  definition   jsonb not null,              -- core/src/indicators/definition.ts
  primary key (indicator_id, version)
);
insert into indicator_version (indicator_id, version, valid_from, definition)
select id, 1, to_timestamp(0), jsonb_build_object(
  'name', name, 'description', '', 'assetId', asset_id::text, 'ownerId', null, 'measure', measure, 'window', span,
  'hours', null, 'judge', jsonb_build_object('kind', 'limits', 'band', band),
  'target', jsonb_build_object('kind', 'none'), 'reference', jsonb_build_object('kind', 'before'),
  'decimals', decimals, 'display', 'units', 'boardId', null)
from indicator;
alter table indicator drop column measure, drop column span, drop column band, drop column decimals;
drop index indicator_name_idx;
create unique index indicator_name_idx on indicator (asset_id, lower(name)) where removed_at is null;

create table indicator_target (
  indicator_id bigint not null references indicator (id) on delete cascade,
  start_date   date not null,               -- local first day of the period
  value        double precision not null,
  primary key (indicator_id, start_date)
);
