-- Up Migration

-- Places and frames gained figures. Documents and all their revisions get what was taken for granted until now: level
-- ground, ordinary weather, no lines to sit on, no photo; one frame of each, strung at 12 degrees, without a plant's weight.
-- Existing keys win, so that running over newer bodies would change nothing.
update document set body = '{
  "riseM": 0, "uprights": null, "levels": null, "photo": null,
  "conditions": {"soil": "loam", "frostDepthM": 0.5, "coldestC": -15, "hottestC": 35, "windMPerS": 22, "snowPa": 0, "iceMm": 0}
}'::jsonb || body where kind = 'place';
update document_revision set body = '{
  "riseM": 0, "uprights": null, "levels": null, "photo": null,
  "conditions": {"soil": "loam", "frostDepthM": 0.5, "coldestC": -15, "hottestC": 35, "windMPerS": 22, "snowPa": 0, "iceMm": 0}
}'::jsonb || body where kind = 'place';
update document set body = jsonb_set(
  body, '{design}',
  '{"snap": "none", "light": null, "setC": 12, "plantKindId": null, "repeat": 1}'::jsonb || (body -> 'design')
) where kind = 'frame';
update document_revision set body = jsonb_set(
  body, '{design}',
  '{"snap": "none", "light": null, "setC": 12, "plantKindId": null, "repeat": 1}'::jsonb || (body -> 'design')
) where kind = 'frame';

-- One document of stores a garden: what it has on hand and its own catalogue.
alter table document drop constraint document_kind_check;
alter table document add constraint document_kind_check check (kind in ('place', 'frame', 'plant', 'stores'));

-- Photos, as they are after being made small and stripped of where and when they were taken.
create table file (
  garden_id uuid not null references garden on delete cascade,
  file_id uuid not null,
  media_type text not null,
  width_px integer not null,
  height_px integer not null,
  content bytea not null,
  added_by uuid not null,
  added_at timestamptz not null default now(),
  primary key (garden_id, file_id)
);
alter table file enable row level security;
create policy one_garden on file using (garden_id = current_garden());
grant select, insert on file to klados_app;
