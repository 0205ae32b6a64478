-- 0033 removals: assets and boards leave the lists and can be restored.
-- compatible: yes
alter table asset add column removed_at timestamptz;
alter table board add column removed_at timestamptz;
-- A removed asset does not keep its name from another.
drop index asset_name_idx;
create unique index asset_name_idx on asset (coalesce(parent_id, 0), lower(name)) where removed_at is null;
