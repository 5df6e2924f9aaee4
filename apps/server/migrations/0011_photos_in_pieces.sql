-- Up Migration

-- A photo on its way here, as far as it has come: a line that breaks goes on where it stopped. What nobody goes on with
-- expires. It weighs nothing on an allowance until it is whole.
create table file_piece (
  garden_id uuid not null references garden on delete cascade,
  file_id uuid not null,
  from_byte integer not null,
  content bytea not null,
  total_bytes integer not null,
  sent_by uuid not null,
  sent_at timestamptz not null default now(),
  primary key (garden_id, file_id, from_byte)
);
alter table file_piece enable row level security;
create policy one_garden on file_piece using (garden_id = current_garden());
grant select, insert, delete on file_piece to klados_app;

-- Of all gardens, which the app's role cannot see.
create function expire_pieces(in_hours integer) returns void language sql security definer set search_path = public as $$
  delete from file_piece where sent_at < now() - make_interval(hours => in_hours)
$$;
revoke execute on function expire_pieces from public;
grant execute on function expire_pieces to klados_app;
