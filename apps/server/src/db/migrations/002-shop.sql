-- What the shop keeps: tools, machines, materials, holders, recipes, one document each.
CREATE TABLE shop_items (
  shelf TEXT NOT NULL,
  id TEXT NOT NULL,
  document TEXT NOT NULL,
  version INTEGER NOT NULL,
  updated_at TEXT NOT NULL,
  deleted_at TEXT,
  PRIMARY KEY (shelf, id)
);
