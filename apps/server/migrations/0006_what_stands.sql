-- Up Migration

-- Read by what they are about: a place's history, or a plant's, without going through the garden's.
create index entry_part on entry (garden_id, (coalesce(plant_id, place_id)), seq);
create index entry_place on entry (garden_id, place_id, seq);

-- What each part of a garden's journal has come to, made from its entries and made anew at any time: whoever opens a garden
-- for the first time reads these and not thirty years. A part is a plant, or what was written of none at a place. They weigh
-- nothing on anybody's allowance, and are in no garden's file.
create table part_fold (
  garden_id uuid not null references garden on delete cascade,
  part text not null,
  fold text not null,
  primary key (garden_id, part)
);
-- Up to which number all parts of a garden are folded, and by which rules. Whoever folds holds this row.
create table garden_fold (
  garden_id uuid primary key references garden on delete cascade,
  up_to bigint not null,
  rules text not null
);
alter table part_fold enable row level security;
alter table garden_fold enable row level security;
create policy one_garden on part_fold using (garden_id = current_garden());
create policy one_garden on garden_fold using (garden_id = current_garden());
grant select, insert, update, delete on part_fold, garden_fold to klados_app;
