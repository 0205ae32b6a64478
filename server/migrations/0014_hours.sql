-- 0014 the hours of a day beside its quarters. Rows written before have none and are read by their quarters.
-- compatible: no   (an older server would change the quarters and leave the hours)
alter table rollup_day add column hours bytea;
alter table rollup_day alter column hours set compression lz4;
