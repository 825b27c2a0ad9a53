-- What was seen of each operation, photos, why parts were scrapped, and what was computed of a run when it was logged. What is learnt may be
-- of tools too.
ALTER TABLE log_entries ADD COLUMN cause TEXT;
ALTER TABLE log_entries ADD COLUMN seen TEXT NOT NULL DEFAULT '[]';
ALTER TABLE log_entries ADD COLUMN computed TEXT NOT NULL DEFAULT '{"materialId":"","material":"","names":{},"uses":[],"cuts":[]}';
CREATE TABLE log_photos (
  entry_id TEXT NOT NULL REFERENCES log_entries (id),
  sha256 TEXT NOT NULL,
  PRIMARY KEY (entry_id, sha256)
) WITHOUT ROWID;
CREATE INDEX log_photos_by_file ON log_photos (sha256);
CREATE TRIGGER photos_stay BEFORE UPDATE ON log_photos BEGIN SELECT RAISE(ABORT, 'what was logged is corrected by another entry'); END;
CREATE TRIGGER photos_are_kept BEFORE DELETE ON log_photos BEGIN SELECT RAISE(ABORT, 'what was logged is kept'); END;

ALTER TABLE learnt RENAME COLUMN machine_id TO item;
ALTER TABLE learnt ADD COLUMN what TEXT NOT NULL DEFAULT 'time';
ALTER TABLE learnt ADD COLUMN of TEXT NOT NULL DEFAULT '';
ALTER TABLE learnt ADD COLUMN evidence TEXT NOT NULL DEFAULT '';

-- Sizes of part after part; one that was mistyped gives way to the row that names it. What was corrected at the control since.
ALTER TABLE release_sizes ADD COLUMN part INTEGER NOT NULL DEFAULT 1;
ALTER TABLE release_sizes ADD COLUMN id TEXT;
ALTER TABLE release_sizes ADD COLUMN replaces TEXT;
CREATE UNIQUE INDEX sizes_by_id ON release_sizes (id) WHERE id IS NOT NULL;
CREATE TABLE release_corrections (
  n INTEGER PRIMARY KEY,
  id TEXT NOT NULL UNIQUE,
  release_id TEXT NOT NULL REFERENCES releases (id),
  size TEXT NOT NULL,
  by_mm REAL NOT NULL,
  who TEXT NOT NULL,
  at TEXT NOT NULL
);
CREATE INDEX corrections_by_release ON release_corrections (release_id, n);
CREATE TRIGGER sizes_stay BEFORE UPDATE ON release_sizes BEGIN SELECT RAISE(ABORT, 'what was measured is put right by another row'); END;
CREATE TRIGGER sizes_are_kept BEFORE DELETE ON release_sizes BEGIN SELECT RAISE(ABORT, 'what was measured is kept'); END;
CREATE TRIGGER corrections_stay BEFORE UPDATE ON release_corrections BEGIN SELECT RAISE(ABORT, 'what was entered stays'); END;
CREATE TRIGGER corrections_are_kept BEFORE DELETE ON release_corrections BEGIN SELECT RAISE(ABORT, 'what was entered is kept'); END;
