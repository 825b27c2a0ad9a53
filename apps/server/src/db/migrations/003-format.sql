-- The format a document was stored in; where it is not known, its shape tells.
ALTER TABLE jobs ADD COLUMN format INTEGER;
ALTER TABLE shop_items ADD COLUMN format INTEGER;
ALTER TABLE refused_saves ADD COLUMN format INTEGER;
