-- 0041 formats: how a person writes numbers, dates and times (core/src/format/formats.ts).
-- compatible: yes
alter table person add column formats jsonb;  -- null = as their device has it
