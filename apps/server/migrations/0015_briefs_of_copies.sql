-- Up Migration

-- A copy of the demo has the briefs of its parts as the model has them: without them no device can open a large one.
create or replace function copy_demo(in_day text, in_garden uuid, in_account uuid) returns boolean
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
  insert into part_fold (garden_id, part, brief, fold)
    select in_garden, part, brief, fold from part_fold where garden_id = model.garden_id;
  insert into garden_fold (garden_id, up_to, rules)
    select in_garden, up_to, rules from garden_fold where garden_id = model.garden_id;
  return true;
end $$;

-- What was copied without its briefs is folded anew when it is next asked for.
delete from garden_fold f using part_fold p where p.garden_id = f.garden_id and p.brief = '';
delete from part_fold where brief = '';
