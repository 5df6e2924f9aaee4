-- Up Migration

-- Each visitor has a copy of the demo garden, gone after a day. Copies are made from the model of their day, which nobody
-- signs in to; it is gone after a day as well.
alter table garden add column demo_day text;
create index garden_demo_day on garden (demo_day);

-- Until now all visitors shared one garden and one account: they begin anew.
delete from session s using account a where a.account_id = s.account_id and a.is_demo;

-- A copy of the model of a day for an account, which owns what the model's owner owned there; false where that day has no
-- model yet. The rows keep their ids, which are a garden's own. A model has no photos. A function, since the app's role sees
-- one garden at a time.
create function copy_demo(in_day text, in_garden uuid, in_account uuid) returns boolean
language plpgsql security definer set search_path = public as $$
declare
  model garden;
begin
  select * into model from garden g where g.demo_day = in_day order by g.garden_id limit 1;
  if not found then return false; end if;
  insert into garden (garden_id, name, latitude_deg, currency, journal_seq, is_demo, made_by)
    values (in_garden, model.name, model.latitude_deg, model.currency, model.journal_seq, true, in_account);
  insert into membership (garden_id, account_id, role)
    select in_garden, case when m.account_id = model.made_by then in_account else m.account_id end, m.role
    from membership m where m.garden_id = model.garden_id;
  insert into document (garden_id, kind, document_id, version, is_removed, note, body, saved_at, saved_by)
    select in_garden, kind, document_id, version, is_removed, note, body, saved_at,
      case when saved_by = model.made_by then in_account else saved_by end
    from document where garden_id = model.garden_id;
  insert into document_revision (garden_id, kind, document_id, version, save_id, is_removed, note, body, saved_at, saved_by)
    select in_garden, kind, document_id, version, save_id, is_removed, note, body, saved_at,
      case when saved_by = model.made_by then in_account else saved_by end
    from document_revision where garden_id = model.garden_id;
  insert into entry
    (garden_id, seq, entry_id, place_id, plant_id, kind, at, recorded_at, written_by, supersedes, body)
    select in_garden, seq, entry_id, place_id, plant_id, kind, at, recorded_at,
      case when written_by = model.made_by then in_account else written_by end, supersedes, body
    from entry where garden_id = model.garden_id;
  insert into part_fold (garden_id, part, fold)
    select in_garden, part, fold from part_fold where garden_id = model.garden_id;
  insert into garden_fold (garden_id, up_to, rules)
    select in_garden, up_to, rules from garden_fold where garden_id = model.garden_id;
  return true;
end $$;

create function has_demo_model(in_day text) returns boolean language sql stable security definer set search_path = public as $$
  select exists (select from garden g where g.demo_day = in_day)
$$;
create function demo_copies() returns bigint language sql stable security definer set search_path = public as $$
  select count(*) from garden g where g.is_demo
$$;

-- Demo gardens older than a day, and the visitors that were made for them.
create function end_demos() returns void language sql security definer set search_path = public as $$
  delete from garden g where g.is_demo and g.created_at < now() - interval '1 day';
  delete from account a where a.is_demo and a.email like 'visitor-%@tarn-close.invalid'
    and a.created_at < now() - interval '1 day';
$$;

-- A copy becomes its owner's own garden, without the demo's crew; false where it is no copy, or not this account's.
create function keep_demo(in_garden uuid, in_account uuid) returns boolean
language plpgsql security definer set search_path = public as $$
begin
  update garden g set is_demo = false where g.garden_id = in_garden and g.is_demo and g.demo_day is null and exists (
    select from membership m where m.garden_id = in_garden and m.account_id = in_account and m.role = 'owner'
  );
  if not found then return false; end if;
  delete from membership m using account a
    where m.garden_id = in_garden and m.account_id = a.account_id and a.is_demo and a.account_id <> in_account;
  return true;
end $$;

-- A copy of the demo is none of the gardens that an account has made until it is kept.
create or replace function gardens_made(in_account uuid) returns bigint
language sql stable security definer set search_path = public as $$
  select count(*) from garden g where g.made_by = in_account and not g.is_demo
$$;

-- A copy of the demo may be deleted as any other garden; a model never.
create or replace function delete_garden(in_garden uuid, in_account uuid) returns boolean
language plpgsql security definer set search_path = public as $$
begin
  delete from garden g where g.garden_id = in_garden and g.demo_day is null and exists (
    select from membership m where m.garden_id = in_garden and m.account_id = in_account and m.role = 'owner'
  );
  return found;
end $$;

revoke execute on function copy_demo, has_demo_model, demo_copies, end_demos, keep_demo from public;
grant execute on function copy_demo, has_demo_model, demo_copies, end_demos, keep_demo to klados_app;
