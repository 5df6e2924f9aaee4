-- Up Migration

-- Under row-level security the planner looks into an index only by expressions of which it knows that they give nothing
-- away. Of coalesce() it does not know that: each reading of a plant's or a place's entries walked through its garden.
drop index entry_part;
create index entry_part on entry
  (garden_id, (case when plant_id is null then place_id else plant_id end), seq);
-- Or what comes first is planned as if nothing were known of it.
analyze entry;
