-- Up Migration

-- What is known already is looked up id by id, and planned anew each time: a plan that was kept from when the journal was
-- nearly empty takes any index for as good as another, and goes through all of the garden for each entry that comes.
create or replace function append_entries(in_garden uuid, in_account uuid, in_entries jsonb)
returns table (id uuid, seq bigint) language plpgsql as $$
declare
  last bigint;
  known_ids uuid[];
  known_seqs bigint[];
begin
  select g.journal_seq into last from garden g where g.garden_id = in_garden for update;
  -- Statements of their own after the lock, so that they see what was committed while it waited.
  execute '
    select array_agg(e.entry_id), array_agg(e.seq)
    from (select distinct (one ->> ''entry_id'')::uuid as id from jsonb_array_elements($2) one) sent
    cross join lateral (
      select x.entry_id, x.seq from entry x where x.garden_id = $1 and x.entry_id = sent.id limit 1
    ) e'
  into known_ids, known_seqs using in_garden, in_entries;
  return query
    with sent as materialized (
      select distinct on (e.entry_id) e.*
      from jsonb_to_recordset(in_entries) as e (
        entry_id uuid, place_id uuid, plant_id uuid, kind text, at text, recorded_at timestamptz, supersedes uuid,
        body jsonb, n integer
      )
      where known_ids is null or e.entry_id <> all (known_ids)
      order by e.entry_id, e.n
    ), added as (
      insert into entry
        (garden_id, seq, entry_id, place_id, plant_id, kind, at, recorded_at, written_by, supersedes, body)
      select in_garden, last + row_number() over (order by sent.n), sent.entry_id, sent.place_id, sent.plant_id,
        sent.kind, sent.at, sent.recorded_at, in_account, sent.supersedes, sent.body
      from sent
      returning entry.entry_id, entry.seq
    ), counted as (
      update garden g set journal_seq = last + (select count(*) from added)
      where g.garden_id = in_garden and exists (select from added)
    )
    select k.entry_id, k.seq from unnest(known_ids, known_seqs) as k (entry_id, seq)
    union all select * from added order by 2;
end $$;
