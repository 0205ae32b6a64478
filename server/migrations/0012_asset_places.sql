-- Plant, zone and depth of every asset, kept by the tree itself: a view that walked the whole tree was read
-- with every metric.
drop view asset_place;
create table asset_place (
  asset_id bigint primary key references asset on delete cascade,
  zone text,
  plant_id bigint not null,
  plant_name text not null,
  depth int not null
);

-- Assets that changed, and all below them. Where one of them lies below another, the longer way down counts.
create function keep_asset_place() returns trigger language plpgsql as $$
begin
  insert into asset_place (asset_id, zone, plant_id, plant_name, depth)
  with recursive place as (
    select changed.id as asset_id, coalesce(changed.zone, above.zone) as zone,
           coalesce(above.plant_id, changed.id) as plant_id, coalesce(above.plant_name, changed.name) as plant_name,
           coalesce(above.depth, 0) + 1 as depth, 0 as steps
    from changed left join asset_place above on above.asset_id = changed.parent_id
    where changed.parent_id is null or not exists (select 1 from changed also where also.id = changed.parent_id)
    union all
    select child.id, coalesce(child.zone, place.zone), place.plant_id, place.plant_name, place.depth + 1, place.steps + 1
    from asset child join place on child.parent_id = place.asset_id
  )
  select distinct on (asset_id) asset_id, zone, plant_id, plant_name, depth from place order by asset_id, steps desc
  on conflict (asset_id) do update
    set zone = excluded.zone, plant_id = excluded.plant_id, plant_name = excluded.plant_name, depth = excluded.depth;
  return null;
end $$;

create trigger asset_added after insert on asset
  referencing new table as changed for each statement execute function keep_asset_place();
create trigger asset_changed after update on asset
  referencing new table as changed for each statement execute function keep_asset_place();

-- Those that are there.
update asset set name = name;
