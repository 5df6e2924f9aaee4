-- Up Migration

-- Nobody becomes a member without agreeing to it: an invitation waits, under the address it is meant for, until the invited
-- accepts it here or by the link that came with it. Members of before count as having accepted.
create table invitation (
  garden_id uuid not null references garden on delete cascade,
  email text not null,
  role text not null check (role in ('viewer', 'grower', 'owner')),
  invited_by uuid not null,
  -- Only a hash of the link's token is kept.
  token_hash bytea not null,
  invited_at timestamptz not null default now(),
  expires_at timestamptz not null,
  primary key (garden_id, email)
);
create index invitation_email on invitation (email);
alter table invitation enable row level security;
create policy one_garden on invitation using (garden_id = current_garden());
grant select, insert, update, delete on invitation to klados_app;

-- What waits for an account, in whichever garden. There is no mail here, so an address proves nothing: an account that was
-- made after the invitation may be anybody's, and needs the link.
create function invitations_for(in_account uuid)
returns table (garden_id uuid, garden_name text, role text, invited_by text, expires_at timestamptz)
language sql stable security definer set search_path = public as $$
  select i.garden_id, g.name, i.role, coalesce(b.name, ''), i.expires_at
  from account a join invitation i on i.email = a.email and a.created_at <= i.invited_at
  join garden g on g.garden_id = i.garden_id left join account b on b.account_id = i.invited_by
  where a.account_id = in_account and i.expires_at > now()
    and not exists (select from membership m where m.garden_id = i.garden_id and m.account_id = a.account_id)
  order by g.name, g.garden_id
$$;

-- Since when somebody has been a member in this role: a right that was given before ends with it.
alter table membership add column since timestamptz not null default now();
update membership set since = 'epoch';

-- A link that a member made remembers what it was made on. One of the operator's has none of these and holds by itself.
alter table reset_link
  add column in_garden uuid,
  add column made_by uuid,
  add column role text,
  add column made_at timestamptz not null default now();
-- Links of before were made under rules that no longer hold.
delete from reset_link;

-- Whether a link made by this owner could open nothing but what the member does in this garden: the member has written
-- nothing in any other garden, and every other one is the owner's too or has nothing and nobody else in it. A garden that
-- the member has left opens nothing.
drop function may_reset(uuid, uuid);
create function may_reset(in_garden uuid, in_owner uuid, in_member uuid) returns boolean
language sql stable security definer set search_path = public as $$
  select in_owner <> in_member
    and not exists (select from account a where a.account_id = in_member and a.is_demo)
    and exists (
      select from membership o where o.garden_id = in_garden and o.account_id = in_owner and o.role = 'owner'
    )
    and exists (select from membership m where m.garden_id = in_garden and m.account_id = in_member)
    and not exists (
      select from membership m where m.account_id = in_member and m.garden_id <> in_garden and (
        exists (select from entry e where e.garden_id = m.garden_id and e.written_by = in_member)
        or exists (select from document_revision r where r.garden_id = m.garden_id and r.saved_by = in_member)
        or exists (select from file f where f.garden_id = m.garden_id and f.added_by = in_member)
        or not exists (
          select from membership o where o.garden_id = m.garden_id and o.account_id = in_owner and o.role = 'owner'
        ) and (
          exists (select from entry e where e.garden_id = m.garden_id)
          or exists (select from document d where d.garden_id = m.garden_id)
          or exists (select from membership o where o.garden_id = m.garden_id and o.account_id <> in_member)
        )
      )
    )
$$;

-- Takes the link away, whatever comes of it, and tells whose password it sets: nobody's where the right that it was made on
-- has ended since, by leaving, by a change of either's role, or by what the member has come to have elsewhere.
create function use_reset_link(in_token bytea) returns uuid
language plpgsql security definer set search_path = public as $$
declare
  link reset_link;
begin
  delete from reset_link l where l.token_hash = in_token and l.expires_at > now() returning l.* into link;
  if not found then return null; end if;
  if link.made_by is null then return link.account_id; end if;
  if may_reset(link.in_garden, link.made_by, link.account_id) and exists (
    select from membership m where m.garden_id = link.in_garden and m.account_id = link.account_id
      and m.role = link.role and m.since <= link.made_at
  ) and exists (
    select from membership o where o.garden_id = link.in_garden and o.account_id = link.made_by
      and o.since <= link.made_at
  ) then return link.account_id; end if;
  return null;
end $$;

-- What an account is told at its next sign-in, until it has been read.
create table account_notice (
  account_id uuid not null references account on delete cascade,
  notice_id uuid not null,
  kind text not null,
  by_name text not null default '',
  garden_name text not null default '',
  at timestamptz not null default now(),
  primary key (account_id, notice_id)
);
grant select, insert, delete on account_notice to klados_accounts;

-- Codes that let somebody back in who has lost the password, once each.
create table recovery_code (
  account_id uuid not null references account on delete cascade,
  code_hash bytea not null,
  primary key (account_id, code_hash)
);
grant select, insert, delete on recovery_code to klados_accounts;

-- Sessions are told apart by their owner: when begun, when used last, with what.
alter table session
  add column session_id uuid not null default gen_random_uuid(),
  add column used_at timestamptz not null default now(),
  add column agent text not null default '';
create index session_account on session (account_id);

-- Wrong guesses from one place at one account. Each makes the next wait longer, there and nowhere else. Unlogged, as turns.
create unlogged table guess (
  key text primary key,
  failures integer not null,
  last timestamptz not null
);
create index guess_last on guess (last);
grant select, insert, update, delete on guess to klados_accounts;

-- Takes a guess, counted as wrong until it proves right, and answers 0; or how many seconds the next one has to wait.
create function take_guess(in_key text, in_free integer, in_longest_s integer) returns integer language plpgsql as $$
declare
  waits interval;
  one guess;
begin
  insert into guess as g (key, failures, last) values (in_key, 0, '-infinity') on conflict do nothing;
  select * into one from guess g where g.key = in_key for update;
  -- A day without a guess begins anew.
  if one.last < clock_timestamp() - interval '1 day' then one.failures = 0; end if;
  waits = make_interval(secs => case when one.failures < in_free then 0
    else least(in_longest_s, 2 ^ least(one.failures - in_free, 20)) end);
  if one.last + waits > clock_timestamp() then
    return ceil(extract(epoch from one.last + waits - clock_timestamp()));
  end if;
  update guess g set failures = one.failures + 1, last = clock_timestamp() where g.key = in_key;
  return 0;
end $$;

revoke execute on function may_reset, use_reset_link, invitations_for from public;
grant execute on function may_reset to klados_app;
grant execute on function use_reset_link, invitations_for to klados_accounts;
