-- Wire may be kept from ending inside a frame, a hoop may stand in a pot, the ribs of a fan may end before the edge, small pots
-- and ties have prices. Until now wire ended at any node, arches stood in the ground and ribs ran to the edge; a garden's own
-- catalogue gets the prices that ship. Existing keys win, so that running over newer bodies would change nothing.
update document set body = jsonb_set(body, '{design}', '{"endsAt": "any"}'::jsonb || (body -> 'design')) where kind = 'frame';
update document_revision set body = jsonb_set(body, '{design}', '{"endsAt": "any"}'::jsonb || (body -> 'design')) where kind = 'frame';

update document set body = jsonb_set(body, '{design,pattern}', '{"pot": null}'::jsonb || (body #> '{design,pattern}'))
  where kind = 'frame' and body #>> '{design,pattern,kind}' = 'arch';
update document_revision set body = jsonb_set(body, '{design,pattern}', '{"pot": null}'::jsonb || (body #> '{design,pattern}'))
  where kind = 'frame' and body #>> '{design,pattern,kind}' = 'arch';

update document set body = jsonb_set(body, '{design,pattern}', '{"ribReachM": null}'::jsonb || (body #> '{design,pattern}'))
  where kind = 'frame' and body #>> '{design,pattern,kind}' = 'fan';
update document_revision set body = jsonb_set(body, '{design,pattern}', '{"ribReachM": null}'::jsonb || (body #> '{design,pattern}'))
  where kind = 'frame' and body #>> '{design,pattern,kind}' = 'fan';

create function pg_temp.with_prices(body jsonb) returns jsonb language sql as $$
  select jsonb_set(body, '{catalogue}', '{"ties": [
    {"id": "soft-jute", "price": 0.02}, {"id": "coir", "price": 0.03}, {"id": "raffia", "price": 0.02},
    {"id": "stretch-tape", "price": 0.04}, {"id": "rubber-coated-wire", "price": 0.25}, {"id": "cloth-strip", "price": 0.01},
    {"id": "padded-hose", "price": 0.6}, {"id": "hook-and-loop", "price": 0.15}
  ]}'::jsonb || (body -> 'catalogue') || jsonb_build_object('goods', case
    when body #> '{catalogue,goods}' @> '[{"id": "pot"}]' then body #> '{catalogue,goods}'
    else (body #> '{catalogue,goods}') || '[{"id": "pot", "unit": "piece", "price": 6}]'::jsonb end))
$$;
update document set body = pg_temp.with_prices(body) where kind = 'stores' and jsonb_typeof(body -> 'catalogue') = 'object';
update document_revision set body = pg_temp.with_prices(body) where kind = 'stores' and jsonb_typeof(body -> 'catalogue') = 'object';
