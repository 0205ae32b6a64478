-- 0023 long lists: what thousands of assets and metrics are searched, sorted and counted by.
-- compatible: yes
create extension if not exists pg_trgm;

-- "Line 2" before "Line 10", whatever the letter case.
create collation natural_order (provider = icu, locale = 'und-u-kn-true');

alter table asset_place
  add column path  bigint[] not null default '{}',  -- ids from the plant down to the asset itself
  add column title text not null default '';        -- its names on the way: "Quayside / Dryers / Dryer 1"
create index asset_place_path_idx on asset_place using gin (path);
create index asset_place_title_idx on asset_place (title collate natural_order);
create index asset_place_search_idx on asset_place using gin (title gin_trgm_ops);

-- Assets that changed, and all below them. Where one of them lies below another, the longer way down counts.
create or replace function keep_asset_place() returns trigger language plpgsql as $$
begin
  insert into asset_place (asset_id, zone, plant_id, plant_name, depth, path, title)
  with recursive place as (
    select changed.id as asset_id, coalesce(changed.zone, above.zone) as zone,
           coalesce(above.plant_id, changed.id) as plant_id, coalesce(above.plant_name, changed.name) as plant_name,
           coalesce(above.depth, 0) + 1 as depth,
           coalesce(above.path, '{}') || changed.id as path,
           coalesce(above.title || ' / ', '') || changed.name as title, 0 as steps
    from changed left join asset_place above on above.asset_id = changed.parent_id
    where changed.parent_id is null or not exists (select 1 from changed also where also.id = changed.parent_id)
    union all
    select child.id, coalesce(child.zone, place.zone), place.plant_id, place.plant_name, place.depth + 1,
           place.path || child.id, place.title || ' / ' || child.name, place.steps + 1
    from asset child join place on child.parent_id = place.asset_id
  )
  select distinct on (asset_id) asset_id, zone, plant_id, plant_name, depth, path, title
  from place order by asset_id, steps desc
  on conflict (asset_id) do update
    set zone = excluded.zone, plant_id = excluded.plant_id, plant_name = excluded.plant_name, depth = excluded.depth,
        path = excluded.path, title = excluded.title
    where (asset_place.zone, asset_place.plant_id, asset_place.plant_name, asset_place.depth, asset_place.path, asset_place.title)
          is distinct from
          (excluded.zone, excluded.plant_id, excluded.plant_name, excluded.depth, excluded.path, excluded.title);
  return null;
end $$;

-- The names of every metric that is not removed, from its plant down.
create table metric_title (
  metric_id bigint primary key references metric (id) on delete cascade,
  title     text not null
);
create index metric_title_sort_idx on metric_title (title collate natural_order);
create index metric_title_search_idx on metric_title using gin (title gin_trgm_ops);
create index metric_name_only_idx on metric (lower(name)) where removed_at is null;

create function keep_metric_title() returns trigger language plpgsql as $$
begin
  delete from metric_title using changed where metric_id = changed.id and changed.removed_at is not null;
  insert into metric_title (metric_id, title)
  select changed.id, place.title || ' / ' || changed.name
  from changed join asset_place place on place.asset_id = changed.asset_id
  where changed.removed_at is null
  on conflict (metric_id) do update set title = excluded.title where metric_title.title <> excluded.title;
  return null;
end $$;
create trigger metric_added after insert on metric
  referencing new table as changed for each statement execute function keep_metric_title();
create trigger metric_changed after update on metric
  referencing new table as changed for each statement execute function keep_metric_title();

create function keep_titles_below() returns trigger language plpgsql as $$
begin
  update metric_title set title = moved.title || ' / ' || metric.name
  from moved join metric on metric.asset_id = moved.asset_id
  where metric_title.metric_id = metric.id and metric_title.title <> moved.title || ' / ' || metric.name;
  return null;
end $$;
create trigger asset_place_changed after update on asset_place
  referencing new table as moved for each statement execute function keep_titles_below();

-- When a feed counts as silent if nothing more comes (core/src/feeds/feedHealth.ts), and whether it is one that can go
-- quiet at all: a metric with a day or more between its samples comes from files.
alter table metric_latest
  add column silent_at timestamptz,
  add column live      boolean not null default true;
update metric_latest
  set silent_at = metric_latest.t + greatest(metric.max_gap_ms, 3 * metric.interval_ms) * interval '1 millisecond',
      live = metric.interval_ms < 86400000
  from metric where metric.id = metric_latest.metric_id;
create index metric_latest_silent_idx on metric_latest (silent_at) where live;

-- Those that are there.
update asset set name = name;
insert into metric_title (metric_id, title)
  select metric.id, place.title || ' / ' || metric.name
  from metric join asset_place place on place.asset_id = metric.asset_id
  where metric.removed_at is null
  on conflict do nothing;
