-- Up Migration

-- Accounts and sessions belong to a role of their own: what queries gardens cannot read a password's hash, nor who else has
-- an account here. Of people it sees names, for authorship, and the addresses of the garden's own members.
revoke all on account, session from klados_app;
grant usage on schema public to klados_accounts;
grant select, insert, update, delete on account, session to klados_accounts;
create view person with (security_barrier) as select account_id, name from account;
create view member_contact with (security_barrier) as
  select m.garden_id, m.account_id, a.name, a.email, m.role
  from membership m join account a using (account_id) where m.garden_id = current_garden();
grant select on person, member_contact to klados_app;

-- The demo's accounts are everybody's: nobody may change their password or delete them.
alter table account add column is_demo boolean not null default false;
update account set is_demo = true where email like '%@tarn-close.invalid';

-- A link that sets a new password, once. As of a session, only a hash of its token is kept.
create table reset_link (
  token_hash bytea primary key,
  account_id uuid not null references account on delete cascade,
  expires_at timestamptz not null
);
grant select, insert, delete on reset_link to klados_accounts;

-- How often somebody has asked within a window. Unlogged: after a crash everybody begins anew, which is soon enough.
create unlogged table throttle (
  key text primary key,
  started timestamptz not null,
  count integer not null
);
create index throttle_started on throttle (started);
grant select, insert, update, delete on throttle to klados_accounts;
create function take_turns(in_key text, in_seconds integer, in_turns integer) returns integer language sql as $$
  insert into throttle as t (key, started, count) values (in_key, clock_timestamp(), in_turns)
  on conflict (key) do update set
    count = case when t.started < excluded.started - make_interval(secs => in_seconds) then in_turns else t.count + in_turns end,
    started = case when t.started < excluded.started - make_interval(secs => in_seconds) then excluded.started else t.started end
  returning count
$$;

-- Photos in chunks, so that one is read and sent piece by piece, by any server.
alter table file add column bytes integer not null default 0;
create table file_chunk (
  garden_id uuid not null,
  file_id uuid not null,
  n integer not null,
  content bytea not null,
  primary key (garden_id, file_id, n),
  foreign key (garden_id, file_id) references file on delete cascade
);
insert into file_chunk
  select f.garden_id, f.file_id, n, substring(f.content from n * 262144 + 1 for 262144)
  from file f, generate_series(0, greatest(octet_length(f.content) - 1, 0) / 262144) as n;
update file set bytes = octet_length(content);
alter table file drop column content;
alter table file_chunk enable row level security;
create policy one_garden on file_chunk using (garden_id = current_garden());
grant select, insert on file_chunk to klados_app;
grant delete on file to klados_app;

-- What a garden weighs, and whose allowance it is taken from: that of the account that made it. Kept by triggers, so that no
-- way of writing can forget it.
alter table garden add column bytes bigint not null default 0;
alter table garden add column made_by uuid;
update garden g set
  made_by = (select m.account_id from membership m where m.garden_id = g.garden_id and m.role = 'owner' order by m.account_id limit 1),
  bytes = coalesce((select sum(length(r.body::text)) from document_revision r where r.garden_id = g.garden_id), 0)
    + coalesce((select sum(length(e.body::text)) from entry e where e.garden_id = g.garden_id), 0)
    + coalesce((select sum(f.bytes) from file f where f.garden_id = g.garden_id), 0);
create index garden_made_by on garden (made_by);

create function weigh_bodies() returns trigger language plpgsql as $$
begin
  update garden g set bytes = g.bytes + w.added
  from (select a.garden_id, sum(length(a.body::text)) as added from added a group by a.garden_id) w
  where g.garden_id = w.garden_id;
  return null;
end $$;
create trigger weigh after insert on document_revision referencing new table as added
  for each statement execute function weigh_bodies();
create trigger weigh after insert on entry referencing new table as added
  for each statement execute function weigh_bodies();
create function weigh_files() returns trigger language plpgsql as $$
begin
  if tg_op = 'INSERT' then
    update garden g set bytes = g.bytes + new.bytes where g.garden_id = new.garden_id;
  else
    update garden g set bytes = g.bytes - old.bytes where g.garden_id = old.garden_id;
  end if;
  return null;
end $$;
create trigger weigh after insert or delete on file for each row execute function weigh_files();

-- Asked across gardens, which the app's role cannot see; so these run as their owner and answer with no more than a number.
create function bytes_beside(in_garden uuid) returns bigint language sql stable security definer set search_path = public as $$
  select coalesce(sum(g.bytes), 0)::bigint from garden g
  where g.made_by = (select own.made_by from garden own where own.garden_id = in_garden)
$$;
create function gardens_made(in_account uuid) returns bigint language sql stable security definer set search_path = public as $$
  select count(*) from garden g where g.made_by = in_account
$$;

-- The app's role deletes no rows of a journal or of revisions. A whole garden goes by this alone, at an owner's word.
create function delete_garden(in_garden uuid, in_account uuid) returns boolean
language plpgsql security definer set search_path = public as $$
begin
  delete from garden g where g.garden_id = in_garden and not g.is_demo and exists (
    select from membership m where m.garden_id = in_garden and m.account_id = in_account and m.role = 'owner'
  );
  return found;
end $$;

-- Answers the gardens that would be left without an owner, and does nothing while there are any. Gardens in which nobody
-- else is go along; of others the allowance passes to another owner. What the person wrote stays, without a name.
create function delete_account(in_account uuid) returns setof text
language plpgsql security definer set search_path = public as $$
begin
  perform 1 from membership m where m.garden_id in (select garden_id from membership where account_id = in_account)
    order by m.garden_id, m.account_id for update;
  return query
    select g.name from garden g join membership m using (garden_id)
    where m.account_id = in_account and m.role = 'owner'
      and exists (select from membership o where o.garden_id = g.garden_id and o.account_id <> in_account)
      and not exists (
        select from membership o
        where o.garden_id = g.garden_id and o.account_id <> in_account and o.role = 'owner'
      );
  if found then return; end if;
  delete from garden g where g.garden_id in (select m.garden_id from membership m where m.account_id = in_account)
    and not exists (select from membership o where o.garden_id = g.garden_id and o.account_id <> in_account);
  update garden g set made_by = (
    select o.account_id from membership o
    where o.garden_id = g.garden_id and o.account_id <> in_account and o.role = 'owner' order by o.account_id limit 1
  ) where g.made_by = in_account;
  delete from account a where a.account_id = in_account;
end $$;

-- Whether a link made by this owner could open nothing that the owner does not own already: every garden of the member is
-- either the owner's too or has nothing in it. Without this, adding somebody to one's garden would be a way into theirs.
create function may_reset(in_owner uuid, in_member uuid) returns boolean
language sql stable security definer set search_path = public as $$
  select not exists (select from account a where a.account_id = in_member and a.is_demo) and not exists (
    select from membership m where m.account_id = in_member
      and not exists (
        select from membership o where o.garden_id = m.garden_id and o.account_id = in_owner and o.role = 'owner'
      )
      and (
        exists (select from entry e where e.garden_id = m.garden_id)
        or exists (select from document d where d.garden_id = m.garden_id)
        or exists (select from membership o where o.garden_id = m.garden_id and o.account_id <> in_member)
      )
  )
$$;

revoke execute on function delete_garden, delete_account, may_reset, bytes_beside, gardens_made from public;
grant execute on function delete_garden, may_reset, bytes_beside, gardens_made to klados_app;
grant execute on function delete_account to klados_accounts;
