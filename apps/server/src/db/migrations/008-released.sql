-- Of which setups the programs were handed out as the job stood at `released_content`; before, one of them was taken for all.
ALTER TABLE jobs ADD COLUMN released TEXT NOT NULL DEFAULT '[]';
UPDATE jobs SET released = (SELECT json_group_array(json_extract(s.value, '$.id')) FROM json_each(document, '$.setups') AS s)
WHERE released_content IS NOT NULL AND json_valid(document);
