-- Up Migration

-- Whose calendar a garden's days are of; null is each reader's own.
alter table garden add column time_zone text;
