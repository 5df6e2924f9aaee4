-- Up Migration

create table account (
  account_id uuid primary key,
  email text not null unique,
  name text not null,
  password_hash text not null,
  units text not null default 'metric',
  created_at timestamptz not null default now()
);

-- Only a hash of the token is kept: a copy of this table lets nobody in.
create table session (
  token_hash bytea primary key,
  account_id uuid not null references account on delete cascade,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null
);
create index session_expiry on session (expires_at);

create table garden (
  garden_id uuid primary key,
  name text not null,
  latitude_deg double precision not null default 52,
  currency text not null default 'EUR',
  -- Number of the last journal entry; its row lock puts appends to one garden in line.
  journal_seq bigint not null default 0,
  is_demo boolean not null default false,
  created_at timestamptz not null default now()
);

create table membership (
  garden_id uuid not null references garden on delete cascade,
  account_id uuid not null references account on delete cascade,
  role text not null check (role in ('viewer', 'grower', 'owner')),
  primary key (garden_id, account_id)
);
create index membership_account on membership (account_id);

create table document (
  garden_id uuid not null references garden on delete cascade,
  kind text not null check (kind in ('place', 'frame', 'plant')),
  document_id uuid not null,
  version integer not null,
  is_removed boolean not null,
  note text not null,
  body jsonb not null,
  saved_at timestamptz not null default now(),
  saved_by uuid not null,
  primary key (garden_id, kind, document_id)
);

create table document_revision (
  garden_id uuid not null references garden on delete cascade,
  kind text not null,
  document_id uuid not null,
  version integer not null,
  save_id uuid not null,
  is_removed boolean not null,
  note text not null,
  body jsonb not null,
  saved_at timestamptz not null default now(),
  saved_by uuid not null,
  primary key (garden_id, kind, document_id, version),
  unique (garden_id, save_id)
);

create table entry (
  garden_id uuid not null references garden on delete cascade,
  seq bigint not null,
  entry_id uuid not null,
  place_id uuid not null,
  plant_id uuid,
  kind text not null,
  at text not null,
  recorded_at timestamptz not null,
  received_at timestamptz not null default now(),
  written_by uuid not null,
  supersedes uuid,
  body jsonb not null,
  primary key (garden_id, seq),
  unique (garden_id, entry_id)
);

-- The app's role owns nothing and sees one garden at a time, even where a query forgets its filter. An unset or empty
-- setting is no garden at all.
create function current_garden() returns uuid language sql stable
  return nullif(current_setting('klados.garden', true), '')::uuid;
create function current_account() returns uuid language sql stable
  return nullif(current_setting('klados.account', true), '')::uuid;

alter table garden enable row level security;
alter table membership enable row level security;
alter table document enable row level security;
alter table document_revision enable row level security;
alter table entry enable row level security;

create policy one_garden on document using (garden_id = current_garden());
create policy one_garden on document_revision using (garden_id = current_garden());
create policy one_garden on entry using (garden_id = current_garden());
create policy own_or_current on membership
  using (garden_id = current_garden() or account_id = current_account())
  with check (garden_id = current_garden());
create policy own_or_current on garden
  using (
    garden_id = current_garden()
    or garden_id in (select m.garden_id from membership m where m.account_id = current_account())
  )
  with check (garden_id = current_garden());

-- Appends what is not there yet, in the order given, and tells the number of every entry, old or new. The garden's row
-- is locked first, so numbers are given out and become visible in one order: a reader of "after N" misses none. A
-- function, because a round trip for each of its steps would halve the rate.
create function append_entries(in_garden uuid, in_account uuid, in_entries jsonb)
returns table (id uuid, seq bigint) language plpgsql as $$
declare
  last bigint;
begin
  select g.journal_seq into last from garden g where g.garden_id = in_garden for update;
  -- A statement of its own after the lock, so that it sees what was committed while it waited.
  return query
    with sent as materialized (
      select distinct on (e.entry_id) e.*
      from jsonb_to_recordset(in_entries) as e (
        entry_id uuid, place_id uuid, plant_id uuid, kind text, at text, recorded_at timestamptz, supersedes uuid,
        body jsonb, n integer
      )
      order by e.entry_id, e.n
    ), known as materialized (
      select e.entry_id, e.seq from entry e
      where e.garden_id = in_garden and e.entry_id = any (select sent.entry_id from sent)
    ), added as (
      insert into entry
        (garden_id, seq, entry_id, place_id, plant_id, kind, at, recorded_at, written_by, supersedes, body)
      select in_garden, last + row_number() over (order by sent.n), sent.entry_id, sent.place_id, sent.plant_id,
        sent.kind, sent.at, sent.recorded_at, in_account, sent.supersedes, sent.body
      from sent
      where sent.entry_id not in (select known.entry_id from known)
      returning entry.entry_id, entry.seq
    ), counted as (
      update garden g set journal_seq = last + (select count(*) from added)
      where g.garden_id = in_garden and exists (select from added)
    )
    select * from known union all select * from added order by 2;
end $$;

grant usage on schema public to klados_app;
grant select, insert, update on account to klados_app;
grant select, insert, update, delete on session to klados_app;
grant select, insert, update on garden to klados_app;
grant select, insert, update, delete on membership to klados_app;
grant select, insert, update on document to klados_app;
-- Revisions and entries are written once: the role that serves requests cannot change or delete them.
grant select, insert on document_revision to klados_app;
grant select, insert on entry to klados_app;
