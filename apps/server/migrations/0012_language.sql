-- Up Migration

-- How a person wants texts, dates and numbers written; null is as their browser asks for it.
alter table account add column language text;
