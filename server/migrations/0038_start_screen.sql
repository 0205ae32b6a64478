-- 0038 start screen: where somebody begins when they open the app.
-- compatible: yes
alter table person add column start_at text;  -- an address such as /boards/7; null = On watch
